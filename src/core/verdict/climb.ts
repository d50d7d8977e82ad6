import { median } from '@/core/base';
import { modeOf } from '@/core/instruments';
import type { Match } from '@/core/hearing/matching';
import { NOTHING, type Part } from './part';
import { nameOf, pitchOf, playedNote, scoreNoteOf, type Reading } from './reading';
import { displayName } from '@/core/tuning';
import { fixed, listed } from './words';

/** Modes of one fingering one after the other: reached or not, and where they lie. */
export function climbPart(reading: Reading): Part {
  const { alignment, notes, limits } = reading;
  const { matches } = alignment;
  const fundamentals = new Map<number, number[]>();
  const ordinary = new Map<number, number[]>();
  const put = (map: Map<number, number[]>, key: number, value: number) =>
    map.set(key, [...(map.get(key) ?? []), value]);
  for (const match of matches) {
    const note = playedNote(reading, match);
    if (!note) continue;
    const { fingered, label } = scoreNoteOf(reading, match.group);
    if (fingered !== null) continue;
    put(label === 'ordinary' ? ordinary : fundamentals, match.group.written, pitchOf(reading, note));
  }
  const bottoms = [...new Set(matches.flatMap((m) => scoreNoteOf(reading, m.group).fingered ?? []))];
  const rows = bottoms.map((fingered) => {
    const base = median(fundamentals.get(fingered) ?? []);
    const over = matches.filter((match) => scoreNoteOf(reading, match.group).fingered === fingered);
    return {
      fingered: displayName(fingered),
      modes: over.map((match) => {
        const mode =
          scoreNoteOf(reading, match.group).mode ?? modeOf(reading.instrument, match.group.written);
        const note = playedNote(reading, match);
        const pitch = note ? pitchOf(reading, note) : NaN;
        const checked = median(ordinary.get(match.group.written) ?? []);
        return {
          mode,
          name: nameOf(match.group),
          reached: note !== null,
          cents: known(100 * (pitch - base - 12 * Math.log2(mode))),
          ordinary: known(100 * (pitch - checked)),
          match,
        };
      }),
    };
  });
  const all = rows.flatMap((row) => row.modes);
  if (all.length === 0) return NOTHING;
  const reached = all.filter((each) => each.reached);
  const lost = all.filter((each) => !each.reached);
  const overshot = lost.filter(({ match }) => isOver(match, notes));
  const off = reached.flatMap((each) => (each.cents === null ? [] : [each.cents]));
  const top = Math.max(1, ...reached.map((each) => each.mode));
  return {
    findings: [
      {
        id: 'modes',
        label: 'Modes reached',
        value: `${reached.length} of ${all.length}`,
        unit: '',
        sentence:
          lost.length === 0
            ? 'Every one of them spoke.'
            : `Not reached: ${listed(rows.flatMap((row) => row.modes.filter((m) => !m.reached).map((m) => `${m.mode} of ${row.fingered}`)))}${overshot.length > 0 ? `; ${overshot.length} went too far` : ''}.`,
        meaning: 'Each mode is one resonance of the fingered tube: 2 the octave, 3 the twelfth and so on.',
      },
      {
        id: 'mode-cents',
        label: 'Against the true multiples',
        value: off.length > 0 ? fixed(median(off), 0) : null,
        unit: 'cents',
        sentence:
          off.length === 0
            ? 'Not known: no fundamental was heard to measure from.'
            : median(off) > limits.intervalCents
              ? 'The modes lay above the multiples of the fundamental: more push than they need.'
              : median(off) < -limits.intervalCents
                ? 'The modes lay below the multiples of the fundamental.'
                : 'The modes lay where the tube has them.',
        meaning: 'The pitch of each mode against k times the fundamental as you sounded it.',
      },
    ],
    faults: [],
    headline: {
      text: lost.length === 0 ? `All modes up to ${top}` : `${reached.length} of ${all.length} modes reached`,
      weight: 2,
    },
    drawing: {
      kind: 'climb',
      rows: rows.map((row) => ({
        fingered: row.fingered,
        modes: row.modes.map(({ mode, name, reached: spoke, cents, ordinary: against }) => ({
          mode,
          name,
          reached: spoke,
          cents,
          ordinary: against,
        })),
      })),
    },
  };
}

const known = (value: number) => (Number.isFinite(value) ? Math.round(10 * value) / 10 : null);

function isOver({ note, group }: Match, notes: Reading['notes']): boolean {
  return note !== null && notes[note]!.soundingMidi > group.sounding + 1;
}
