export { ReviewScreen } from './ReviewScreen';
export { TakeScreen } from './TakeScreen';
export { TakeSpark } from './TakeSpark';
export { setupText } from './setupText';
export { instrumentName } from './instrumentName';
export { HowToRead, useAsRead } from './HowToRead';
export { useTurns } from './useTurns';
export { CompareScreen, digestTake, judgeTake } from './later';
export { TimeChart } from './laterDetail';
