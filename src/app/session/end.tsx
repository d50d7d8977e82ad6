export { SessionEndScreen as default } from '@/features/session';
