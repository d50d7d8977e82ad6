export { analysisOf, analysisSchema, type Analysis } from './analysis';
export { decodeWavBlocks, encodeWav, readWavLayout, toInt16, type WavLayout } from './wav';
