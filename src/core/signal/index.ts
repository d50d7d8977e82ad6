export { CLICK_SECONDS, clickMask, clickSamples, locateClicks, type Click } from './click';
export { PARTIALS, partialsAt, type Frames, type LiveFrame } from './frames';
export { Listener } from './listener';
export { listeningSettings, type ListeningRange, type Settings } from './settings';
export { SILENCE_DB } from './level';
