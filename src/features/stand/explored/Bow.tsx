import { extent } from 'd3-array';
import { Circle, G, Line } from 'react-native-svg';
import type { ExploredPicture, SweptSound } from '@/core/hearing/following';
import { usePalette } from '@/ui';
import { Mark, Rule, scaled, TEXT, type Room } from './plane';

const SIDE = 16;
const LEAST_CENTS = 30;
const LEAST_DB = 18;
const THIN = 2;
const THICK = 12;

/** Level across, pitch up and down: the way there in ink, the way back in slate; thick where it rings. */
export function Bow({ picture, width, height }: Room & { picture: ExploredPicture & { kind: 'bow' } }) {
  const palette = usePalette();
  const { there, back, now, ringDb, tuneDb } = picture;
  const all = [...there, ...back];
  const most = Math.max(LEAST_CENTS, ...all.map(({ cents }) => Math.abs(cents)));
  const softest = Math.min(-LEAST_DB, ...all.map(({ levelDb }) => levelDb));
  const x = scaled([softest, 0], [SIDE, width - SIDE]);
  const y = scaled([-most, most], [height - 2 * TEXT, 2 * TEXT]);
  const [least = 0, ringing = 0] = extent(all, ({ ring }) => ring);
  const thick = scaled([least, Math.max(ringing, least + 1)], [THIN, THICK]);
  const legs = [
    { name: 'there', sounds: there, stroke: palette.ink },
    { name: 'back', sounds: back, stroke: palette.slate },
  ];
  return (
    <G>
      <Rule from={[0, y(0)]} to={[width, y(0)]} />
      {legs.map(({ name, sounds, stroke }) => (
        <G key={name}>
          {sounds.slice(1).map((sound, i) => (
            <Leg
              key={sound.levelDb}
              from={sounds[i]!}
              to={sound}
              {...{ x, y, stroke }}
              width={Number.isNaN(sound.ring) ? THIN : thick(sound.ring)}
            />
          ))}
        </G>
      ))}
      {ringDb === null ? null : (
        <G>
          <Rule from={[x(ringDb), TEXT * 1.4]} to={[x(ringDb), height - 2 * TEXT]} found />
          <Mark {...beside(x(ringDb), width)} y={TEXT} text="rings" found />
        </G>
      )}
      {tuneDb === null ? null : (
        <G>
          <Circle cx={x(tuneDb)} cy={y(0)} r={7} fill="none" stroke={palette.goldText} strokeWidth={2} />
          <Mark {...beside(x(tuneDb), width)} y={y(0) - 12} text="in tune" found />
        </G>
      )}
      {now ? <Circle cx={x(now.levelDb)} cy={y(now.cents)} r={7} fill={palette.gold} /> : null}
      <Mark x={SIDE} y={height - 6} text="softer" />
      <Mark x={width - SIDE} y={height - 6} text="louder" anchor="end" />
      <Mark x={SIDE} y={y(most) + TEXT} text={`${Math.round(most)} cents high`} />
      <Mark x={SIDE} y={y(-most)} text={`${Math.round(most)} cents low`} />
    </G>
  );
}

/** Words at a place stay inside. */
const beside = (x: number, width: number) =>
  x < 60
    ? ({ x: x + 6, anchor: 'start' } as const)
    : x > width - 60
      ? ({ x: x - 6, anchor: 'end' } as const)
      : ({ x, anchor: 'middle' } as const);

interface LegProps {
  readonly from: SweptSound;
  readonly to: SweptSound;
  readonly x: (levelDb: number) => number;
  readonly y: (cents: number) => number;
  readonly stroke: string;
  readonly width: number;
}

function Leg({ from, to, x, y, stroke, width }: LegProps) {
  return (
    <Line
      x1={x(from.levelDb)}
      y1={y(from.cents)}
      x2={x(to.levelDb)}
      y2={y(to.cents)}
      stroke={stroke}
      strokeWidth={width}
      strokeLinecap="round"
    />
  );
}
