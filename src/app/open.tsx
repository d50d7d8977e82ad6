export { OpenScreen as default } from '@/features/week';
