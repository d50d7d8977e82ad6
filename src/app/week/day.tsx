export { DayScreen as default } from '@/features/week';
