export { TrendsScreen as default } from '@/features/map';
