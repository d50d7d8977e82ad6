export { restAfter, withLength, withOneAfter, without, withPitch, withRest, withSlur } from './edits';
export { inTwelveKeys, phraseScore, type PhraseBars } from './score';
export { readPhrase, type PhraseRead } from './read';
export { setDown, tempoHeard, type Counting } from './setDown';
export { lastPlayings, unlike } from './twice';
