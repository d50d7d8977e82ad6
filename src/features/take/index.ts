export { ReviewScreen } from './ReviewScreen';
export { TakeScreen } from './TakeScreen';
export { TakeSpark } from './TakeSpark';
export { setupText } from './setupText';
export { instrumentName } from './instrumentName';
export { HowToRead, useAsRead } from './HowToRead';
export { useVerdict } from './useVerdict';
export { useTurns } from './useTurns';
export { CompareScreen, TimeChart } from './later';
