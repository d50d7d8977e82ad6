export { MapScreen as default } from '@/features/map';
