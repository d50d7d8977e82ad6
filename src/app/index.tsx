export { TodayScreen as default } from '@/features/today';
