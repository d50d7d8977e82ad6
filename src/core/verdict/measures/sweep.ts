import { median } from '@/core/base';
import { binned, ringOf, tuneOf, type SweptSound } from '@/core/hearing/following';
import { ringing } from '@/core/hearing/signal';
import { leaning } from '@/core/tuning';
import type { Chart } from '../charts';
import { figure, isKnown, valueOf, wholeOf } from '../figure';
import { NOTHING, SILENT, type Curve, type Measure } from '../measure';
import { roleOf, traced } from '../reading';
import { because, sized } from '../words';

const SHORT_WAY_DB = 10;
const FAR_APART_DB = 6;
const SAME_BREATH_DB = 3;

/** Level against pitch and ring, on the way up and on the way down, of the first note that was swept. */
export const sweep: Measure = {
  measure(reading) {
    const { alignment, notes, trace } = reading;
    const swept = alignment.matches.find(
      ({ parts, group }) => parts.length > 0 && roleOf(reading, group) === 'sweep',
    );
    if (!swept) return NOTHING;
    const at = swept.group.index;
    const start = notes[swept.parts[0]!]!.startSeconds + 0.1;
    const end = notes[swept.parts[swept.parts.length - 1]!]!.endSeconds - 0.05;
    const column = (name: 'levelDb' | 'pitchMidi' | 'airinessDb' | 'richness') =>
      traced(trace, name, start, end);
    const [level, pitch, air, rich] = [
      column('levelDb'),
      column('pitchMidi'),
      column('airinessDb'),
      column('richness'),
    ];
    const loudest = Math.max(...level);
    const top = level.indexOf(loudest);
    const sound = (i: number): SweptSound => ({
      levelDb: level[i]! - loudest,
      cents: 100 * (pitch[i]! - swept.group.sounding),
      ring: ringing(rich[i]!, air[i]!),
    });
    const usable = (each: SweptSound) =>
      Number.isFinite(each.cents) && Number.isFinite(each.ring) && Math.abs(each.cents) < 150;
    const leg = (from: number, to: number) =>
      binned(Array.from({ length: Math.max(0, to - from) }, (_, i) => sound(from + i)).filter(usable));
    const [up, down, all] = [leg(0, top + 1), leg(top, level.length), leg(0, level.length)];
    const [ringDb, tuneDb] = [ringOf(all), tuneOf(all)];
    const atRing =
      ringDb === null
        ? null
        : all.reduce((a, b) => (Math.abs(b.levelDb - ringDb) < Math.abs(a.levelDb - ringDb) ? b : a)).cents;
    const [ups, downs] = [tuneOf(up), tuneOf(down)];
    const about = { groups: [at], n: all.length };
    const line = (of: 'sweep-up' | 'sweep-down', points: readonly SweptSound[]): Curve => ({
      of,
      at,
      points: points.map(({ levelDb, cents }) => ({ x: levelDb, y: cents })),
    });
    return {
      figures: [
        figure('ring', ringDb === null ? null : -ringDb, about, 'same-everywhere'),
        figure(
          'in-tune',
          tuneDb === null ? null : -tuneDb,
          about,
          all.length === 0 ? 'too-few' : 'never-in-tune',
        ),
        figure('ring-cents', atRing, about, 'same-everywhere'),
        figure(
          'ring-gap',
          ringDb === null || tuneDb === null ? null : tuneDb - ringDb,
          about,
          ringDb === null ? 'same-everywhere' : 'never-in-tune',
        ),
        ...(ups === null || downs === null ? [] : [figure('hysteresis', ups - downs, about)]),
        figure('swept', all.length > 0 ? all[all.length - 1]!.levelDb - all[0]!.levelDb : 0, about),
        ...(all.length > 0 ? [figure('sweep-cents', median(all.map(({ cents }) => cents)), about)] : []),
      ],
      curves: [line('sweep-up', up), line('sweep-down', down)],
    };
  },
  say(figures, { nameAt, limits }) {
    const ring = wholeOf(figures, 'ring');
    if (!ring) return SILENT;
    const name = nameAt(ring.groups[0] ?? 0);
    const tune = wholeOf(figures, 'in-tune');
    const atRing = valueOf(figures, 'ring-cents');
    const gap = wholeOf(figures, 'ring-gap');
    const both = valueOf(figures, 'hysteresis');
    const swept = valueOf(figures, 'swept') ?? 0;
    const middle = valueOf(figures, 'sweep-cents');
    return {
      headline:
        atRing !== null
          ? `${name} rings most where it is ${leaning(atRing)}`
          : isKnown(tune)
            ? 'The breath is mapped'
            : `${name} was never quite in tune`,
      lines: {
        ring: isKnown(ring)
          ? `${name} rang most ${below(ring.value)}: most partials and least air.`
          : because(ring.unknown),
        'in-tune': isKnown(tune)
          ? `The pitch crossed its target ${below(tune.value)}.`
          : `${because(tune?.unknown ?? 'too-few')}${middle === null ? '' : ` It stayed ${leaning(middle)}.`}`,
        'ring-gap':
          atRing === null
            ? because('same-everywhere')
            : `At the ringing breath ${name} was ${leaning(atRing)}.${isKnown(gap) && Math.abs(gap.value) > FAR_APART_DB && Math.abs(atRing) > limits.centreCents ? ' So far apart, another fingering or shading is the answer.' : ''}`,
        ...(both !== null && {
          hysteresis:
            Math.abs(both) < SAME_BREATH_DB
              ? 'The same breath both ways.'
              : 'The way up and the way down differ.',
        }),
        swept:
          swept < SHORT_WAY_DB ? 'A short way; go from nearly nothing to too much.' : 'Far enough to tell.',
      },
    };
  },
  draw({ figures, curves }, { nameAt }): Chart[] {
    const points = (of: Curve['of']) => curves.find((curve) => curve.of === of)?.points ?? [];
    if (points('sweep-up').length + points('sweep-down').length === 0) return [];
    const mark = (id: 'ring' | 'in-tune', text: string) => {
      const value = valueOf(figures, id);
      return value === null ? [] : [{ x: -value, text }];
    };
    return [
      {
        kind: 'curves',
        title: `${nameAt(curves[0]!.at)}: pitch against breath`,
        x: { label: 'level against the loudest', unit: 'dB' },
        y: { label: 'pitch', unit: 'cents' },
        zero: 0,
        lines: [
          { name: 'louder', style: 'played', points: points('sweep-up') },
          { name: 'softer', style: 'second', points: points('sweep-down') },
        ],
        marks: [...mark('ring', 'rings'), ...mark('in-tune', 'in tune')],
      },
    ];
  },
};

/** `9 dB below the loudest`, or at it. */
const below = (dB: number): string =>
  Math.round(dB) <= 0 ? 'at the loudest' : `${sized(dB, 'dB')} below the loudest`;
