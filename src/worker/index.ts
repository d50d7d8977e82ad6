export { AnalysisClient, type ListenHandlers } from './client';
export { LIVE_STRIDE, type Result } from './protocol';
