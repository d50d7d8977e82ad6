export { BenchScreen } from './BenchScreen';
export { LimitsScreen } from './LimitsScreen';
