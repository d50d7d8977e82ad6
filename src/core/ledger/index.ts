export { conditionsSchema, TAKE_VERSION, takeSchema, traceSchema, type Conditions, type Take, type Trace } from './take';
export { traceOf } from './trace';
