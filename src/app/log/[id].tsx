export { TakeScreen as default } from '@/features/take';
