import { useRouter } from 'expo-router';
import { isRest, minutesText, sayBlock, sayDay, scoreOfBlock, titleOfBlock, type Block } from '@/core/plan';
import { usePlanning, type Planning } from '@/features/planning';
import { useSettings } from '@/store';
import { dayText, Notation, Sheet, useNoteName } from '@/ui';
import { useWeek } from './useWeek';

/** Music of more notes than this says nothing at the size that it has here. */
const SMALL_MUSIC = 24;

/** What is still to come of a week, on paper: the music small, a box to tick for each block. */
export function PrintWeekScreen() {
  const router = useRouter();
  const nameOf = useNoteName();
  const planning = usePlanning();
  const days = useWeek(planning, 0);
  const back = () => (router.canGoBack() ? router.back() : router.replace('/week'));
  if (!planning) return null;
  const coming = days.flatMap(({ plan }) => (plan ? [plan] : []));
  return (
    <Sheet title={`Practice, ${planning.instrument.name}`} onBack={back}>
      <style>{STYLE}</style>
      {coming.length === 0 ? <p>Nothing is left of this week.</p> : null}
      {coming.map((plan) => (
        <section key={plan.date} className="day">
          <h2>{dayText(new Date(`${plan.date}T12:00:00`))}</h2>
          <p>{sayDay(plan, nameOf)}</p>
          {plan.blocks
            .filter((block) => !block.skipped)
            .map((block) => (
              <Row key={block.id} block={block} planning={planning} />
            ))}
        </section>
      ))}
      <p>Dizzy, numb or short of breath: stop and breathe normally. Sore: stop for the day.</p>
    </Sheet>
  );
}

/** Music of a block, small beside its box. */
const MUSIC_WIDTH = 460;
const STYLE = `
  .sheet .day { break-inside: avoid; }
  .sheet .block { display: flex; gap: 10px; align-items: flex-start; break-inside: avoid; padding: 4px 0; }
  .sheet .box { width: 14px; height: 14px; border: 1.5px solid #000; margin-top: 4px; flex: none; }
  .sheet .block p { margin: 0; }
  .sheet .music { max-width: ${MUSIC_WIDTH}px; }
`;

function Row({ block, planning: { instrument } }: { block: Block; planning: Planning }) {
  const nameOf = useNoteName();
  const { settings } = useSettings();
  if (isRest(block)) return <p className="block">{`Rest the lip, drink: ${minutesText(block.seconds)}`}</p>;
  const made = scoreOfBlock({ ...block, repeats: 1 }, instrument, settings.level, settings.naming);
  return (
    <div className="block">
      <span className="box" aria-hidden="true" />
      <div>
        <p>
          <strong>{titleOfBlock(block)}</strong>
          {`, ${minutesText(block.seconds)}${made.ok ? `: ${sayBlock(block, made.value, nameOf)}` : ''}${block.repeats > 1 ? `, ${block.repeats} times` : ''}`}
        </p>
        {made.ok && made.value.notes.length > 0 && made.value.notes.length <= SMALL_MUSIC ? (
          <div className="music">
            <Notation score={made.value} instrument={instrument} scale={0.55} paper={MUSIC_WIDTH} />
          </div>
        ) : null}
      </div>
    </div>
  );
}
