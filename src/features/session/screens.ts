export { SessionEndScreen } from './SessionEndScreen';
