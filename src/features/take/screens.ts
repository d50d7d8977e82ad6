/** All that judges a take, in one piece, which is loaded when the first take is shown or kept. */
export { CompareScreen } from './CompareScreen';
export { digestOf, judged } from './judging';
export { TakeView } from './TakeView';
