import { median } from '@/core/base';
import { glideOf } from '@/core/music';
import { NOTHING, type Part } from './part';
import { stretch, type Reading } from './reading';
import { fixed } from './words';

const SMOOTH = 5;
/** The pitch that a leg starts from is that of its own first moment. */
const GLIDE_SHARE = 0.1;

/** How far the pitch was moved each way, how evenly, and what the tone lost. */
export function bendPart(reading: Reading): Part {
  const { score, trace, alignment, notes, beats, events } = reading;
  const heard = alignment.matches.flatMap(({ parts }) => parts);
  const plain = alignment.matches[0];
  if (heard.length === 0 || !plain) return NOTHING;
  const start = notes[heard[0]!]!.startSeconds;
  const end = notes[heard[heard.length - 1]!]!.endSeconds;
  const total = Math.max(...score.notes.map((note) => note.startBeat + note.beats));
  const at = (beat: number) => beats.secondsOf?.(beat) ?? start + (beat / total) * (end - start);
  const first = score.notes[0]!;
  const settled = stretch(trace, 'pitchMidi', at(0) + 0.3, at(first.beats) - 0.1);
  const centre = median(settled);
  const plainDb = median(stretch(trace, 'levelDb', at(0) + 0.3, at(first.beats) - 0.1));
  const legs = score.notes.flatMap((note) => {
    const glide = glideOf(note.label);
    if (!glide || note.label === null) return [];
    const from = Math.max(start, at(note.startBeat));
    const to = Math.min(end, at(note.startBeat + note.beats));
    const raw = stretch(trace, 'pitchMidi', from, to).map((pitch) => 100 * (pitch - centre));
    const cents = raw.map((_, i) => median(raw.slice(Math.max(0, i - (SMOOTH >> 1)), i + (SMOOTH >> 1) + 1)));
    const level = stretch(trace, 'levelDb', from, to);
    const known = cents.filter((value) => Number.isFinite(value) && Math.abs(value) < 400);
    const low = Math.min(glide.from, glide.to) < 0;
    const reach = known.length === 0 ? 0 : low ? Math.min(...known) : Math.max(...known);
    return [
      {
        label: note.label,
        points: cents.flatMap((value, i) =>
          Number.isFinite(value) ? [{ seconds: (i + 0.5) * trace.stepSeconds, value }] : [],
        ),
        reach,
        uneven: unevenness(known),
        lostDb: plainDb - Math.min(...level.slice(Math.round(level.length * GLIDE_SHARE), -2)),
      },
    ];
  });
  const reachOf = (sign: number) => Math.max(0, ...legs.map((leg) => sign * leg.reach));
  const [down, up] = [reachOf(-1), reachOf(1)];
  const broke = events.some((event) => event.kind === 'break' || event.kind === 'squeak');
  const lost = Math.max(0, ...legs.map((leg) => leg.lostDb).filter(Number.isFinite));
  const uneven = median(legs.map((leg) => leg.uneven));
  return {
    findings: [
      {
        id: 'bend-down',
        label: 'Down',
        value: fixed(down, 0),
        unit: 'cents',
        sentence:
          down < 15 ? 'It hardly moved.' : `${fixed(down / 100, 1)} of a semitone below the plain note.`,
        meaning: 'The lowest pitch of the glides down, against the plain note at the start.',
      },
      {
        id: 'bend-up',
        label: 'Up',
        value: fixed(up, 0),
        unit: 'cents',
        sentence: up < 15 ? 'It hardly moved.' : `${fixed(up / 100, 1)} of a semitone above the plain note.`,
        meaning: 'The highest pitch of the glides up, against the plain note at the start.',
      },
      {
        id: 'bend-even',
        label: 'Evenness of the glide',
        value: Number.isFinite(uneven) ? fixed(uneven, 0) : null,
        unit: 'cents from a smooth way',
        sentence: !Number.isFinite(uneven)
          ? 'Not known: the glides were too short.'
          : uneven < 8
            ? 'Smooth.'
            : 'In steps.',
        meaning: 'Mean distance of the pitch from the straight way between the ends of each glide.',
      },
      {
        id: 'bend-level',
        label: 'Tone',
        value: fixed(lost, 0),
        unit: 'dB lost',
        sentence: broke ? 'It broke on the way.' : lost > 10 ? 'The tone nearly went.' : 'The tone survived.',
        meaning: 'How much softer than the plain note it became at the most.',
      },
    ],
    faults: [],
    headline: { text: `${fixed(down, 0)} cents down, ${fixed(up, 0)} up`, weight: 2 },
    drawing: { kind: 'bend', legs: legs.map(({ label, points, reach }) => ({ label, points, reach })) },
  };
}

/** Mean distance from the straight way between the two ends. */
function unevenness(cents: readonly number[]): number {
  if (cents.length < 8) return NaN;
  const inner = cents.slice(1, -1);
  const [a, b] = [inner[0]!, inner[inner.length - 1]!];
  const off = inner.map((value, i) => Math.abs(value - a - ((b - a) * i) / (inner.length - 1)));
  return off.reduce((sum, each) => sum + each, 0) / off.length;
}
