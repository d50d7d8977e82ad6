export { SlideScreen as default } from '@/features/map';
