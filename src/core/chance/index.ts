export { Random } from './random';
