export { WishesScreen as default } from '@/features/week';
