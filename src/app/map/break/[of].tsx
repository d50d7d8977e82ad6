export { BreakScreen as default } from '@/features/map';
