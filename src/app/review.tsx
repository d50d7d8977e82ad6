export { ReviewScreen as default } from '@/features/take';
