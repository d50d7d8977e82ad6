/** The pages of this room in one piece, which is loaded when the first of them is shown. */
export { BenchScreen } from './BenchScreen';
export { LimitsScreen } from './LimitsScreen';
export { ReedsScreen } from './ReedsScreen';
export { SettingsScreen } from './SettingsScreen';
