import { createHash } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { defaultLongTone, longTone } from '@/core/exercises';
import { findInstrument } from '@/core/instruments';
import { Random } from '@/core/chance';
import { perform, steadyPlayer, type Player } from '@/core/simulate';
import { takeOf, TakeListener, type Take } from '@/core/take';
import { noteNumber } from '@/core/tuning';

/** The demo's story: eight weeks of one invented player, each take played by the simulated player and really measured. */
const STORY = 'Odile Farrant, alto recorder and bassoon, gets ready for the Lantern Night at Hollin Weir.';
const WEEKS = 8;
const DAYS_A_WEEK = 3;
const SAMPLE_RATE = 32_000;
/** Sound is shipped with the newest takes only, to keep the demo light. */
const WITH_SOUND = 4;
const LEAD_SECONDS = 0.6;

interface Day {
  readonly instrumentId: string;
  readonly note: string;
  readonly remark: string;
  readonly player: Partial<Player>;
}

/** What was played on practice day number `day` of `days`: a low note that comes right, a bassoon reed that dies. */
function dayOf(day: number, days: number, random: Random): Day {
  const progress = day / (days - 1);
  const chance = (spread: number) => spread * random.normal();
  if (day % 3 === 2) {
    // The old reed goes down until the fifth week; the new one is better at once.
    const old = progress < 0.6;
    const worn = old ? progress / 0.6 : 0.1;
    return {
      instrumentId: 'bassoon',
      note: 'F2',
      remark:
        day === days - 1
          ? 'New reed, third week: settled.'
          : old && worn > 0.8
            ? 'The old reed is done.'
            : '',
      player: {
        offsetCents: -3 - 11 * worn + chance(1),
        driftCentsPerSecond: -0.3 - 1.6 * worn,
        wobbleCents: 1.8 + 3.2 * worn,
        levelDriftDbPerSecond: -0.2 - 0.6 * worn,
        airinessDb: -42 + 16 * worn,
        levelDb: -19 + chance(1),
        riseSeconds: 0.06 + 0.1 * worn,
      },
    };
  }
  return {
    instrumentId: 'recorder-alto',
    note: day % 3 === 0 ? 'F4' : 'D5',
    remark:
      day === 0
        ? 'First try with the metronome.'
        : day === days - 2
          ? 'Breathed lower, before the beat.'
          : '',
    player: {
      offsetCents: -14 + 10 * progress + chance(1.5),
      driftCentsPerSecond: -2.2 + 1.9 * progress + chance(0.1),
      wobbleCents: Math.max(0.8, 4 - 2.6 * progress + chance(0.3)),
      levelDriftDbPerSecond: -1 + 0.8 * progress,
      levelDb: -22 + chance(1),
      vibrato: day % 6 === 1 && progress < 0.5 ? { rateHz: 5.2, extentCents: 9 } : null,
      latenessSeconds: Math.max(0, 0.09 - 0.07 * progress + chance(0.012)),
      scoopCents: -22 + 12 * progress,
    },
  };
}

function playDay(day: Day, when: Date, index: number): { take: Take; audio: Int16Array } {
  const instrument = findInstrument(day.instrumentId);
  if (!instrument) throw new Error(`no ${day.instrumentId}`);
  const score = longTone({ ...defaultLongTone(day.instrumentId), written: noteNumber(day.note) });
  if (!score.ok) throw new Error(score.problem);
  const { audio } = perform({
    score: score.value,
    instrument,
    player: { ...steadyPlayer, ...day.player },
    seed: 1000 + index,
    sampleRate: SAMPLE_RATE,
    a4: 440,
    leadSeconds: LEAD_SECONDS,
    tailSeconds: 0.8,
  });
  const listener = new TakeListener({
    score: score.value,
    sampleRate: SAMPLE_RATE,
    a4: 440,
    gainControlled: false,
    silenceSeconds: null,
    longestSeconds: 600,
    firstBeat: LEAD_SECONDS,
    roundTrip: { seconds: 0, how: 'exact' },
  });
  listener.push(0, audio);
  const heard = listener.finish();
  const conditions = {
    source: 'simulated',
    sourceName: 'Simulated player',
    sampleRate: SAMPLE_RATE,
    a4: 440,
    temperament: 'Equal',
    processing: [],
    interruption: null,
  } as const;
  const take = takeOf(`demo-${String(index).padStart(3, '0')}`, when, score.value, heard, {
    ...conditions,
    processing: [],
  });
  return { take: { ...take, remark: day.remark }, audio: heard.audio };
}

async function main(): Promise<void> {
  const target = process.argv[2];
  if (!target) throw new Error('say where to write the demo');
  const days = WEEKS * DAYS_A_WEEK;
  const random = new Random(20);
  const newest = new Date();
  newest.setHours(18, 40, 0, 0);
  const takes = Array.from({ length: days }, (_, i) => {
    const ago = Math.round(((days - 1 - i) * 7) / DAYS_A_WEEK) + 1;
    const when = new Date(newest.getTime() - ago * 86_400_000 + (i % 4) * 11 * 60_000);
    const { take, audio } = playDay(dayOf(i, days, random), when, i);
    if (i < days - WITH_SOUND) return { take: { ...take, audio: null }, audio: null };
    return { take, audio: Buffer.from(audio.buffer).toString('base64') };
  });
  const edition = createHash('sha1').update(JSON.stringify(takes)).digest('hex').slice(0, 12);
  await writeFile(target, JSON.stringify({ schema: 'gold-reed/demo@1', edition, story: STORY, takes }));
  console.log(`demo: ${takes.length} takes`);
}

void main();
