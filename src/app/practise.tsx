export { LibraryScreen as default } from '@/features/library';
