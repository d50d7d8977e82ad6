export { analysisOf, analysisSchema, type Analysis } from './analysis';
export { notesCsv, takesCsv } from './csv';
export { decodeWavBlocks, encodeWav, readWavLayout, type WavLayout } from './wav';
