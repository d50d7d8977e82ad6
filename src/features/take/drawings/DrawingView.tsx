import { highOrLow } from '@/core/tuning';
import { differenceWord, fixed, type Drawing } from '@/core/verdict';
import { BendDrawing, LinesDrawing, ScanDrawing, SweepDrawing } from './curves';
import { AxisRows, Titled, type AxisRow } from './rows';

type Of<K extends Drawing['kind']> = Extract<Drawing, { kind: K }>;

/** The drawing that fits the family: what was explored or practised, not one chart for all. */
export function DrawingView({ drawing }: { drawing: Drawing }) {
  switch (drawing.kind) {
    case 'lines':
      return <LinesDrawing {...drawing} />;
    case 'bend':
      return <BendDrawing {...drawing} />;
    case 'sweep':
      return <SweepDrawing {...drawing} />;
    case 'scan':
      return <ScanDrawing {...drawing} />;
    case 'climb':
      return <ClimbDrawing {...drawing} />;
    case 'holds':
      return <HoldsDrawing {...drawing} />;
    case 'ladder':
      return <LadderDrawing {...drawing} />;
    case 'window':
      return <WindowDrawing {...drawing} />;
    case 'sameness':
      return <SamenessDrawing {...drawing} />;
    case 'compared':
      return <ComparedDrawing {...drawing} />;
    case 'ways':
      return <WaysDrawing {...drawing} />;
    case 'leanings':
      return (
        <CentsRows
          title="Which way you lean, note by note"
          rows={drawing.notes.map(({ name, cents }) => ({ name, cents, words: highOrLow(cents) }))}
        />
      );
    case 'intervals':
      return (
        <CentsRows
          title="From the pure interval"
          rows={drawing.notes.map(({ name, interval, cents, beatHz }) => ({
            name: interval === name ? name : `${name} ${interval === 'octave' ? '' : interval}`.trim(),
            cents,
            words: `${highOrLow(cents)}${beatHz === null ? '' : ` · ${fixed(beatHz, 1)} Hz`}`,
          }))}
        />
      );
    case 'anchor':
      return (
        <CentsRows
          title={`${drawing.name} at each return, against its first`}
          rows={drawing.returns.map(({ from, cents }) => ({
            name: `from ${from}`,
            cents,
            words: cents === null ? 'not known' : highOrLow(cents),
          }))}
        />
      );
  }
}

interface CentsRow {
  readonly name: string;
  readonly cents: number | null;
  readonly words: string;
}

function CentsRows({ title, rows }: { title: string; rows: readonly CentsRow[] }) {
  const reach = Math.max(20, ...rows.map((row) => Math.min(60, Math.abs(row.cents ?? 0))));
  return (
    <Titled title={title}>
      <AxisRows
        label={title}
        low={-reach}
        high={reach}
        ends={[`${fixed(reach, 0)} low`, `${fixed(reach, 0)} high`]}
        rows={rows.map((row, i) => ({
          key: String(i),
          name: row.name,
          values: row.cents === null ? [] : [row.cents],
          words: row.words,
        }))}
      />
    </Titled>
  );
}

/** Modes stand over their fundamental as the tube has them. */
function ClimbDrawing({ rows }: Of<'climb'>) {
  const all = rows.flatMap((row) => row.modes.map((mode) => Math.abs(mode.cents ?? 0)));
  const reach = Math.ceil(Math.max(20, ...all.map((cents) => Math.min(80, cents))) / 10) * 10;
  return (
    <>
      {rows.map((row, i) => (
        <Titled key={i} title={`Modes of ${row.fingered}, against the true multiples`}>
          <AxisRows
            label={`Modes of ${row.fingered}`}
            low={-reach}
            high={reach}
            ends={[`${reach} low`, `${reach} high`]}
            rows={[...row.modes].reverse().map((mode, k) => ({
              key: String(k),
              name: `${mode.mode}: ${mode.name}`,
              values: mode.cents === null ? [] : [mode.cents],
              words: !mode.reached
                ? 'not reached'
                : mode.cents === null
                  ? 'reached'
                  : `${highOrLow(mode.cents)}${mode.ordinary === null ? '' : ` (${highOrLow(mode.ordinary)} of ordinary)`}`,
            }))}
          />
        </Titled>
      ))}
    </>
  );
}

function HoldsDrawing({ holds }: Of<'holds'>) {
  const longest = Math.max(1, ...holds.map((hold) => Math.max(hold.length, hold.asked)));
  return (
    <Titled title="How long each stayed pure">
      <AxisRows
        label="Pure time of each hold"
        low={0}
        high={longest}
        ends={['0 s', `${fixed(longest, 0)} s`]}
        rows={holds.map((hold, i) => ({
          key: String(i),
          name: hold.name,
          values: [hold.length],
          faint: true,
          ...(hold.pure !== null && { span: [0, hold.pure] as const }),
          words: hold.pure === null ? 'not known' : `${fixed(hold.pure, 1)} of ${fixed(hold.length, 1)} s`,
        }))}
      />
    </Titled>
  );
}

/** Every attack against its place, a line for each step of the ladder. */
function LadderDrawing({ steps }: Of<'ladder'>) {
  const all = steps.flatMap((step) => step.offsets.map((seconds) => 1000 * seconds));
  const reach = Math.max(40, ...all.map(Math.abs));
  return (
    <Titled title="Each attack against its place, by attacks a bar">
      <AxisRows
        label="Offsets by subdivision"
        low={-reach}
        high={reach}
        ends={[`${fixed(reach, 0)} ms early`, `${fixed(reach, 0)} ms late`]}
        rows={steps.map((step, i) => {
          const mean = (1000 * step.offsets.reduce((a, b) => a + b, 0)) / Math.max(1, step.offsets.length);
          return {
            key: String(i),
            name: step.label,
            values: step.offsets.map((seconds) => 1000 * seconds),
            words: `${fixed(Math.abs(mean), 0)} ms ${mean < 0 ? 'early' : 'late'}`,
          };
        })}
      />
    </Titled>
  );
}

function WindowDrawing({ notes }: Of<'window'>) {
  const levels = notes.flatMap((note) => [note.softDb, note.loudDb]);
  const [low, high] = [Math.min(...levels) - 2, Math.max(...levels) + 2];
  return (
    <Titled title="From the softest to the loudest of each note">
      <AxisRows
        label="Dynamic window"
        low={low}
        high={high}
        ends={['soft', 'loud']}
        rows={notes.map((note, i) => ({
          key: String(i),
          name: note.name,
          values: [],
          span: [note.softDb, note.loudDb] as const,
          words: `${fixed(note.loudDb - note.softDb, 0)} dB`,
        }))}
      />
    </Titled>
  );
}

function SamenessDrawing({ reference, notes }: Of<'sameness'>) {
  const most = Math.max(3, ...notes.map((note) => note.distance));
  return (
    <Titled title={`How unlike ${reference} each note was`}>
      <AxisRows
        label={`Distance from ${reference}`}
        low={0}
        high={most}
        ends={['the same', `${fixed(most, 1)} steps`]}
        rows={notes.map((note, i): AxisRow => {
          const part = [...note.parts].sort((a, b) => Math.abs(b.steps) - Math.abs(a.steps))[0];
          return {
            key: String(i),
            name: note.name,
            values: [],
            span: [0, note.distance],
            words: part && Math.abs(part.steps) > 1 ? differenceWord(part) : 'alike',
          };
        })}
      />
    </Titled>
  );
}

/** Differences with their intervals, each in its own unit: only what leaves zero out is filled. */
function ComparedDrawing({ names, rows }: Of<'compared'>) {
  return (
    <Titled title={`${names[1]} against ${names[0]}`}>
      {rows.map((row) => {
        const reach = Math.max(1e-6, Math.abs(row.low), Math.abs(row.high)) * 1.1;
        return (
          <AxisRows
            key={row.label}
            label={row.label}
            low={-reach}
            high={reach}
            ends={['less', 'more']}
            rows={[
              {
                key: row.label,
                name: row.label,
                values: [row.difference],
                span: [row.low, row.high],
                faint: !row.sure,
                words: row.sure
                  ? `${row.difference > 0 ? '+' : ''}${fixed(row.difference, 1)} ${row.unit}`
                  : 'no difference',
              },
            ]}
          />
        );
      })}
    </Titled>
  );
}

function WaysDrawing({ ways }: Of<'ways'>) {
  const levels = ways.flatMap((way) => (way.levelDb === null ? [] : [way.levelDb]));
  const [low, high] = [Math.min(...levels) - 1, Math.max(...levels) + 1];
  return (
    <Titled title="The same row in each way: level, and its slurs or rise">
      <AxisRows
        label="Level by way"
        low={low}
        high={high}
        ends={['softer', 'louder']}
        rows={ways.map((way, i) => ({
          key: String(i),
          name: way.name,
          values: way.levelDb === null ? [] : [way.levelDb],
          words:
            way.cleanSlurs !== null
              ? `${way.cleanSlurs} clean`
              : way.rise === null
                ? ''
                : `rise ${fixed(1000 * way.rise, 0)} ms`,
        }))}
      />
    </Titled>
  );
}
