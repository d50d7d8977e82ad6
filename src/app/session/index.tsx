export { SessionScreen as default } from '@/features/session';
