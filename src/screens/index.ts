export { JudgingSettings } from './bench/JudgingSettings';
export { SoundSettings } from './bench/SoundSettings';
export { TuningSettings } from './bench/TuningSettings';
export { BeginButton, ListenPanel } from './exercise/BeginPanel';
export { ModelPanel } from './exercise/ModelPanel';
export { SetupPanel, setupText } from './exercise/SetupPanel';
export { StandStage, TakeView } from './later';
