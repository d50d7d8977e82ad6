export { PhraseScreen as default } from '@/features/music';
