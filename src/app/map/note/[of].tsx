export { NoteScreen as default } from '@/features/map';
