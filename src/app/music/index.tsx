export { MusicScreen as default } from '@/features/music';
