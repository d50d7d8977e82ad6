export { PrintWeekScreen as default } from '@/features/week';
