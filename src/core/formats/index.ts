export { analysisOf, analysisSchema, type Analysis } from './analysis';
export { decodeWavBlocks, encodeWav, readWavLayout, toInt16, type WavLayout } from './wav';
export { fromMidi, toMidi } from './midi';
export { fromMusicXml, readMusicXml } from './musicXmlIn';
export { toMusicXml } from './musicXmlOut';
export { readKeyboardMap, readScale, scaleHertz, type KeyboardMap, type ScaleFile } from './tuningFile';
