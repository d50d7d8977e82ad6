export { Banner } from './Banner';
