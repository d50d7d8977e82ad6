export { CLICK_SECONDS, clickMask, clickSamples, locateClicks, type Click } from './click';
export { droneFrequencies, isSpoilt } from './drone';
export { PARTIALS, partialsAt, type Frames, type LiveFrame } from './frames';
export { ringing } from './ringing';
export { Listener, type ListenerOptions } from './listener';
export { listeningSettings, type ListeningRange, type Settings } from './settings';
export { steadyTones } from './steadyTones';
export { SILENCE_DB } from './level';
export { QUICK_PARTIALS } from './continuity';
