import type { Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';

/** Gives a file to the browser to be saved. */
export function download(name: string, content: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

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

function ask(accept: string, multiple: boolean): Promise<File[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = accept;
    input.multiple = multiple;
    input.onchange = () => resolve(Array.from(input.files ?? []));
    input.oncancel = () => resolve([]);
    input.click();
  });
}

/** Asks for a file with the browser's own dialog; null when the player changes their mind. */
export const askForFile = async (accept: string): Promise<File | null> =>
  (await ask(accept, false))[0] ?? null;

/** Asks for one file or several; none when the player changes their mind. */
export const askForFiles = (accept: string): Promise<File[]> => ask(accept, true);
