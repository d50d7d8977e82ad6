import { findInstrument } from '@/core/instruments';
import { families } from '@/core/music';
import { engrave, PAPER_WIDTH, paperScale } from '@/ui/engraver.testing';
import { collisionsIn } from './collisions';

/** Where music is shown: how wide, and how large; or on a sheet, as that is printed. */
export type Paper = { readonly width: number; readonly scale: number } | 'sheet';

/** @returns what touches what in a family's default music; null where there is none for the instrument. */
export type Draw = (family: string, instrument: string, paper: Paper) => string[] | null;

const draw: Draw = (familyId, instrumentId, paper) => {
  const family = families.find(({ id }) => id === familyId);
  const instrument = findInstrument(instrumentId);
  const element = document.getElementById('music');
  if (!family || !instrument || !element || family.unfit(instrument)) return null;
  const made = family.make(instrument, {}, 'exacting');
  if (!made.ok || made.value.notes.length === 0) return null;
  const { width, scale } =
    paper === 'sheet' ? { width: PAPER_WIDTH, scale: paperScale(made.value.notes.length) } : paper;
  engrave(element, made.value, instrument, { width, scale, ink: '#000', gold: '#850', font: 'Words' });
  return collisionsIn(element);
};

Object.assign(globalThis, { draw });
