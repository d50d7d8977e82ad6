export { SessionEndScreen } from './SessionEndScreen';
export { SessionScreen } from './SessionScreen';
