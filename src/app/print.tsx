export { SheetScreen as default } from '@/features/library';
