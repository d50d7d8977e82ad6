import { G, Line } from 'react-native-svg';
import type { Seconds } from '@/core/base';
import type { ExploredPicture } from '@/core/hearing/following';
import { useNoteName, usePalette } from '@/ui';
import { Mark, Rule, scaled, TEXT, type Room } from './plane';

const SIDE = 10;
const LEAST_SECONDS = 10;
const ROW = 2.4 * TEXT;
/** A tone that has come to the edge finds room again. */
const HEADROOM = 1.15;

interface GrowthProps extends Room {
  readonly picture: ExploredPicture & { kind: 'growth' };
  /** Longest pure hold of earlier takes; null: there is none yet. */
  readonly best: Seconds | null;
}

/** Each hold as a line as long as it lasted, the newest on top, against the longest pure one so far. */
export function Growth({ picture, best, width, height }: GrowthProps) {
  const palette = usePalette();
  const nameOf = useNoteName();
  const { holding } = picture;
  const rows = [...picture.holds].reverse().slice(0, Math.max(1, Math.floor((height - ROW) / ROW)));
  const longest = Math.max(LEAST_SECONDS, best ?? 0, ...rows.map(({ seconds }) => seconds));
  const x = scaled([0, longest * HEADROOM], [SIDE, width - SIDE]);
  return (
    <G>
      {best === null ? null : (
        <G>
          <Rule from={[x(best), TEXT * 1.5]} to={[x(best), height]} found />
          <Mark
            x={x(best)}
            y={TEXT}
            text={`best pure ${best.toFixed(0)} s`}
            anchor={x(best) > width / 2 ? 'end' : 'start'}
            found
          />
        </G>
      )}
      {rows.map(({ written, seconds }, i) => {
        const y = 2 * TEXT + i * ROW;
        const growing = i === 0 && holding;
        return (
          <G key={picture.holds.length - i}>
            <Mark
              x={SIDE}
              y={y}
              text={`${nameOf(written)} · ${seconds.toFixed(growing ? 0 : 1)} s`}
              found={growing}
            />
            <Line
              x1={SIDE}
              x2={x(seconds)}
              y1={y + 12}
              y2={y + 12}
              stroke={growing ? palette.gold : palette.ink}
              strokeWidth={growing ? 10 : 5}
              strokeLinecap="round"
            />
          </G>
        );
      })}
    </G>
  );
}
