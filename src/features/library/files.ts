import type { Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import { download } from '@/ui';

const plain = (title: string) =>
  title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'exercise';

// Readers and writers of files are loaded when they are first needed.
export async function downloadMusicXml(score: Score, instrument: Instrument): Promise<void> {
  const { toMusicXml } = await import('@/core/music/files');
  download(`${plain(score.title)}.musicxml`, toMusicXml(score, instrument), 'application/xml');
}

export async function downloadMidi(score: Score, instrument: Instrument): Promise<void> {
  const { toMidi } = await import('@/core/music/files');
  download(`${plain(score.title)}.mid`, new Uint8Array(toMidi(score, instrument)), 'audio/midi');
}
