import { heldNote, scoreOfFamily } from '@/core/music/scores.testing';
import { addPiece, readMusic, removePiece, restorePiece } from './musicStore';
import { MapStorage } from './storage.testing';

const air = heldNote('flute');
const study = scoreOfFamily('octave-slurs', 'oboe');
const noon = new Date('2026-03-01T12:00:00Z');
const later = new Date('2026-03-01T12:05:00Z');

let storage: MapStorage;
beforeEach(() => (storage = new MapStorage()));
const names = async () => (await readMusic(storage)).pieces.map(({ fileName }) => fileName);

describe('own music', () => {
  it('is kept newest first, note for note', async () => {
    await addPiece(storage, { fileName: 'air.mid', score: air, remark: null }, noon);
    await addPiece(storage, { fileName: 'study.musicxml', score: study, remark: null }, later);
    const [newest, oldest] = (await readMusic(storage)).pieces;
    expect(newest).toMatchObject({ fileName: 'study.musicxml', addedAt: later.toISOString(), score: study });
    expect(oldest!.score).toEqual(air);
  });

  it('keeps two files apart that came at the same moment', async () => {
    const [one, other] = [
      await addPiece(storage, { fileName: 'one.mid', score: air, remark: null }, noon),
      await addPiece(storage, { fileName: 'other.mid', score: study, remark: null }, noon),
    ];
    expect(one.id).not.toBe(other.id);
    await removePiece(storage, one.id);
    await expect(names()).resolves.toEqual(['other.mid']);
  });

  it('can be removed and had back, once', async () => {
    const piece = await addPiece(storage, { fileName: 'air.mid', score: air, remark: null }, noon);
    await expect(removePiece(storage, piece.id)).resolves.toEqual(piece);
    await expect(names()).resolves.toEqual([]);
    await expect(removePiece(storage, piece.id)).resolves.toBeNull();
    await restorePiece(storage, piece);
    await restorePiece(storage, piece);
    await expect(names()).resolves.toEqual(['air.mid']);
  });

  it.each([
    ['cut off', '{"version":1,"pieces":[{"id":"x"', /music/i],
    ['of a newer program', '{"version":9,"pieces":[]}', /newer|version/i],
  ])('%s is reported, and stays as it lies', async (_, text, words) => {
    await storage.setItem('music', text);
    await expect(readMusic(storage)).rejects.toThrow(words);
    await expect(addPiece(storage, { fileName: 'new.mid', score: air, remark: null }, noon)).rejects.toThrow(
      words,
    );
    expect(storage.map.get('music')).toBe(text);
  });

  it('that cannot be read takes no other piece with it: it is told by its title, and lies as it was', async () => {
    const good = await addPiece(storage, { fileName: 'air.mid', score: air, remark: null }, noon);
    const strange = { ...good, id: 'strange', score: { ...air, title: 'Of tomorrow', version: 99 } };
    await storage.setItem('music', JSON.stringify({ version: 1, pieces: [strange, good] }));
    expect(await readMusic(storage)).toMatchObject({
      pieces: [{ id: good.id }],
      unread: [{ title: 'Of tomorrow', problem: expect.stringMatching(/newer Gold Reed/) as string }],
    });
    await addPiece(storage, { fileName: 'new.mid', score: study, remark: null }, later);
    await removePiece(storage, good.id);
    expect(await names()).toEqual(['new.mid']);
    expect((await readMusic(storage)).unread.map(({ stored }) => stored)).toEqual([strange]);
  });
});
