import { fromByteArray } from 'base64-js';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo, useRef, useState } from 'react';
import { DAY_MS } from '@/core/base';
import { nameWithin, type Instrument } from '@/core/instruments';
import { reportOf, seamTitle, turnSentence, type Report, type ReportPlace } from '@/core/ledger';
import { fixed, limitsOf, plural } from '@/core/verdict';
import { countWord, MapDrawing, problemWord, STATE_WORDS, WALL } from '@/features/map';
import { instrumentIn, soundOf, usePlayed, useSettings } from '@/store';
import { download, Notice, paper, Sheet, SHEET_STYLE, useNoteName, useShape, wholeDay } from '@/ui';

const PERIODS = [14, 42, 183] as const;
const PERIOD_WORDS = { 14: 'two weeks', 42: 'six weeks', 183: 'half a year' } as const;
type Days = (typeof PERIODS)[number];
const MOST_ROWS = 8;
/** Of the map on paper, in pixels. */
const MAP_WIDTH = 440;
const MARGINS = 64;
const MAP_STEP = 9;

/** One page for a teacher: what was played, what held and what did not, three places to listen to. Neutral, and no grades. */
export function ReportScreen() {
  const router = useRouter();
  const { instrument: asked } = useLocalSearchParams<{ instrument?: string }>();
  const { settings } = useSettings();
  const [days, setDays] = useState<Days>(42);
  const [now] = useState(() => Date.now() / DAY_MS);
  const instrument = instrumentIn(settings, asked ?? settings.instrumentId);
  const { data: played } = usePlayed(instrument?.id ?? '', false);
  const { level, ownLimits } = settings;
  const report = useMemo(
    () =>
      played && instrument ? reportOf(played, instrument, limitsOf(level, ownLimits), now - days, now) : null,
    [played, instrument, level, ownLimits, now, days],
  );
  const page = useRef<HTMLDivElement>(null);
  const [saving, setSaving] = useState(false);
  const back = () => (router.canGoBack() ? router.back() : router.replace('/log'));
  if (!instrument)
    return (
      <Notice
        problem
        text="The instrument is not known here."
        action={{ label: 'To the log', onPress: back }}
      />
    );
  const save = async () => {
    if (!report || !page.current) return;
    setSaving(true);
    try {
      const sounds = await Promise.all(
        report.places.map(({ takeId, fromSeconds, toSeconds }) => soundOf(takeId, fromSeconds, toSeconds)),
      );
      download('practice-report.html', fileOf(page.current.innerHTML, sounds), 'text/html');
    } finally {
      setSaving(false);
    }
  };
  return (
    <Sheet
      title={`Practice report, ${nameWithin(instrument)}`}
      onBack={back}
      keys={
        <>
          <button onClick={() => void save()} disabled={saving} data-testid="save-report">
            {saving ? 'Gathering the sound …' : 'One file, with its sound'}
          </button>
          <label>
            {'Of the last '}
            <select value={days} onChange={(event) => setDays(Number(event.target.value) as Days)}>
              {PERIODS.map((each) => (
                <option key={each} value={each}>
                  {PERIOD_WORDS[each]}
                </option>
              ))}
            </select>
          </label>
        </>
      }
    >
      <div ref={page} data-testid="report">
        {report ? (
          <Told report={report} instrument={instrument} from={now - days} until={now} />
        ) : (
          <p>Reading the log …</p>
        )}
      </div>
    </Sheet>
  );
}

interface ToldProps {
  readonly report: Report;
  readonly instrument: Instrument;
  readonly from: number;
  readonly until: number;
}

function Told({ report, instrument, from, until }: ToldProps) {
  const nameOf = useNoteName();
  const { width } = useShape();
  const {
    takes,
    sittings,
    minutes,
    exercises,
    turns,
    seams,
    problems,
    notes,
    breaks,
    moved,
    remarks,
    places,
  } = report;
  return (
    <>
      <p>{`${instrument.name}, ${wholeDay(from)} to ${wholeDay(until)}: ${plural(takes, 'take')} kept on ${plural(sittings, 'day')}, ${Math.round(minutes)} min heard. What was played and not kept is not counted.`}</p>
      <Part
        title="What was played"
        rows={exercises.map(
          (each) => `${each.title}: ${plural(each.takes, 'take')}, ${fixed(each.minutes, 1)} min`,
        )}
      />
      <Part
        title="Slurs over the breaks, the weakest first"
        rows={seams.map(
          (seam) =>
            `${seamTitle(seam.from, seam.to, nameOf)}: clean ${countWord(seam.reliability)}, ${STATE_WORDS[seam.state]}`,
        )}
      />
      <Part
        title="Seams that came to hold, or opened again"
        rows={turns.map((turn) => `${wholeDay(turn.day)}: ${turnSentence(turn, nameOf)}`)}
      />
      <Part
        title="Notes away from their pitch"
        rows={problems.map((problem) => `${nameOf(problem.note.written)}: ${problemWord(problem)}`)}
      />
      {takes > 0 ? (
        <>
          <h2>Where the notes lie, and how the breaks hold</h2>
          <p>
            {`Left of the line is low, right of it high; the wall of the tube is ${WALL} cents away. A mark is as wide as the note is spread, and dashed where it is only a guess. The more of a gold line is there, the better that break holds.`}
          </p>
          <MapDrawing
            instrument={instrument}
            notes={notes}
            breaks={breaks}
            named={new Set(problems.map(({ note }) => note.written))}
            step={MAP_STEP}
            width={Math.min(MAP_WIDTH, width - MARGINS)}
            palette={paper}
          />
        </>
      ) : null}
      <Part
        title="What moved"
        rows={moved.map(
          ({ followed: { label, decimals, unit }, title, trend: { line } }) =>
            `${label}, ${title}: from ${fixed(line![0], decimals)} to ${fixed(line![1], decimals)} ${unit}`,
        )}
        none="No figure moved by more than chance would make it."
      />
      <Part
        title="Remarks"
        rows={remarks.map(({ day, title, text }) => `${wholeDay(day)}, ${title}: ${text}`)}
      />
      {places.length > 0 ? (
        <>
          <h2>To listen to</h2>
          <ul>
            {places.map((place, i) => (
              <li key={i} data-place={i}>
                {placeWord(place, nameOf)}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      <p>
        Pitches are told with the slide and the temperature taken off where they were told; a share of clean
        slurs counts late ones for more. Nothing here is a grade.
      </p>
    </>
  );
}

function Part({ title, rows, none }: { title: string; rows: readonly string[]; none?: string }) {
  if (rows.length === 0 && none === undefined) return null;
  return (
    <>
      <h2>{title}</h2>
      {rows.length === 0 ? <p>{none}</p> : null}
      <ul>
        {rows.slice(0, MOST_ROWS).map((row) => (
          <li key={row}>{row}</li>
        ))}
      </ul>
      {rows.length > MOST_ROWS ? <p>{`and ${rows.length - MOST_ROWS} more`}</p> : null}
    </>
  );
}

function placeWord({ why: { kind, crossed } }: ReportPlace, nameOf: (written: number) => string): string {
  if (!crossed) return 'A take of these days, from its beginning';
  const { from, to } = crossed.crossing;
  return `${seamTitle(from, to, nameOf)}, ${kind === 'held' ? 'as it held' : 'as it opened'}, ${wholeDay(crossed.take.day)}`;
}

/** The page as a file of its own, each place with a player that holds its sound. */
function fileOf(body: string, sounds: readonly (Uint8Array | null)[]): string {
  const page = new DOMParser().parseFromString(
    `<!doctype html><meta charset="utf-8"><title>Practice report</title><style>${SHEET_STYLE}</style><body class="sheet"><h1>Practice report</h1>${body}`,
    'text/html',
  );
  sounds.forEach((sound, i) => {
    const place = page.querySelector(`[data-place="${i}"]`);
    if (!sound || !place) return;
    const player = page.createElement('audio');
    player.controls = true;
    player.src = `data:audio/wav;base64,${fromByteArray(sound)}`;
    place.append(page.createElement('br'), player);
  });
  return `<!doctype html>${page.documentElement.outerHTML}`;
}
