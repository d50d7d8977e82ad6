export { MapScreen } from './MapScreen';
