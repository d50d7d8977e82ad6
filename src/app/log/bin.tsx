export { BinScreen as default } from '@/features/log';
