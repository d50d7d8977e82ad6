import { pageLater } from '@/ui';

export const MusicScreen = pageLater('My own music', async () => (await import('./screens')).MusicScreen);
export const PieceScreen = pageLater('My own music', async () => (await import('./screens')).PieceScreen);
export const PhraseScreen = pageLater('Played in', async () => (await import('./screens')).PhraseScreen);
