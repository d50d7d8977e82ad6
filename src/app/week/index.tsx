export { WeekScreen as default } from '@/features/week';
