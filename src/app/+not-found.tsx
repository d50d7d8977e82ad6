export { NotFoundScreen as default } from '@/features/today';
