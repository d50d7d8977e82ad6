export { ReviewScreen } from './ReviewScreen';
export { TakeScreen } from './TakeScreen';
export { TakeSpark } from './TakeSpark';
export { setupText } from './setupText';
