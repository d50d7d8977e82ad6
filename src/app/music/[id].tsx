export { PieceScreen as default } from '@/features/music';
