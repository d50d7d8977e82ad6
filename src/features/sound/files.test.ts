import { act, createElement } from 'react';
import { mount } from '@/ui/mount.testing';
import { askForRecording, chooseFile, chosenFile, useChosenFile } from './chosenFile';
import { askForFile, askForFiles, download } from '@/ui';

/** The browser's dialog: opened by a click, answered by the test. */
let dialogs: HTMLInputElement[] = [];
let saved: { name: string; from: string }[] = [];
const blobs: Blob[] = [];
let revoked: string[] = [];

beforeEach(() => {
  dialogs = [];
  saved = [];
  revoked = [];
  blobs.length = 0;
  jest.spyOn(HTMLInputElement.prototype, 'click').mockImplementation(function (this: HTMLInputElement) {
    dialogs.push(this);
  });
  jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
    saved.push({ name: this.download, from: this.href });
  });
  URL.createObjectURL = (blob) => `blob:here/${blobs.push(blob as Blob)}`;
  URL.revokeObjectURL = (url) => void revoked.push(url);
});
afterEach(() => jest.restoreAllMocks());

function answer(files: readonly File[]): void {
  const [dialog] = dialogs;
  Object.defineProperty(dialog!, 'files', { value: files });
  dialog!.onchange!(new Event('change'));
}

describe('a file of the player’s', () => {
  it('is asked for by its kinds, one or several', async () => {
    const one = askForFile('.mid');
    expect(dialogs[0]).toMatchObject({ type: 'file', accept: '.mid', multiple: false });
    const air = new File(['x'], 'air.mid');
    answer([air]);
    await expect(one).resolves.toBe(air);
    dialogs = [];
    const several = askForFiles('.scl,.kbm');
    expect(dialogs[0]!.multiple).toBe(true);
    answer([air, air]);
    await expect(several).resolves.toHaveLength(2);
  });

  it('may not be chosen after all', async () => {
    const nothing = askForRecording();
    expect(dialogs[0]!.accept).toMatch(/audio.*\.wav.*\.mp3/);
    dialogs[0]!.oncancel!(new Event('cancel'));
    await expect(nothing).resolves.toBeNull();
  });

  it('that was chosen is known wherever it is asked for, at once', () => {
    const shown: (string | null)[] = [];
    function Shown() {
      shown.push(useChosenFile()?.name ?? null);
      return null;
    }
    const page = mount(createElement(Shown));
    act(() => chooseFile(new File(['x'], 'take.wav')));
    expect(shown).toEqual([null, 'take.wav']);
    page.leave();
    chooseFile(new File(['x'], 'other.wav'));
    expect(shown).toHaveLength(2);
    expect(chosenFile()?.name).toBe('other.wav');
  });
});

describe('a file for the player', () => {
  it('is given to the browser under its name, and nothing of it stays behind', () => {
    download('octave-slurs.mid', 'notes', 'audio/midi');
    expect(saved).toEqual([{ name: 'octave-slurs.mid', from: 'blob:here/1' }]);
    expect(blobs[0]!.type).toBe('audio/midi');
    expect(revoked).toEqual(['blob:here/1']);
  });
});
