export { AnalysisClient, type ListenHandlers } from './client';
export {
  LIVE_STRIDE,
  resultSchema,
  takeRequestSchema,
  type Result,
  type TakeRequestMessage,
} from './protocol';
