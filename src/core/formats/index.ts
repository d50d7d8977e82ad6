export { analysisOf, analysisSchema, type Analysis } from './analysis';
export { decodeWavBlocks, encodeWav, fromInt16, readWavLayout, toInt16, type WavLayout } from './wav';
