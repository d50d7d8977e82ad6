export { CompareScreen as default } from '@/features/take';
