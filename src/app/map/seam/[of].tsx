export { SeamScreen as default } from '@/features/map';
