export { analysisOf, analysisSchema, type Analysis } from './analysis';
export { decodeWavBlocks, encodeWav, readWavLayout, type WavLayout } from './wav';
