import { G, Path } from 'react-native-svg';
import type { ExploredPicture } from '@/core/hearing/following';
import { usePalette } from '@/ui';
import { Mark, Rule, scaled, TEXT, type Room } from './plane';

const SIDE = 10;
const LEAST_CENTS = 60;
const LEAST_SECONDS = 8;
const BREATH_SECONDS = 0.3;
/** Less is no bend. */
const HARDLY_CENTS = 5;

/** The pitch on its way down and up, and the farthest that it came. */
export function Reach({ picture, width, height }: Room & { picture: ExploredPicture & { kind: 'reach' } }) {
  const palette = usePalette();
  const { way, downCents, upCents } = picture;
  const most = Math.max(LEAST_CENTS, downCents, upCents);
  const last = Math.max(LEAST_SECONDS, way[way.length - 1]?.x ?? 0);
  const x = scaled([0, last], [SIDE, width - SIDE]);
  const y = scaled([-most, most], [height - 1.6 * TEXT, 1.6 * TEXT]);
  // A breath is no part of the way.
  const isNew = (i: number) => i === 0 || way[i]!.x - way[i - 1]!.x > BREATH_SECONDS;
  const path = way.map((point, i) => `${isNew(i) ? 'M' : 'L'}${x(point.x)} ${y(point.y)}`).join(' ');
  return (
    <G>
      <Rule from={[0, y(0)]} to={[width, y(0)]} />
      <Mark x={width - SIDE} y={y(0) - 6} text="plain" anchor="end" />
      {path ? (
        <Path
          d={path}
          fill="none"
          stroke={palette.ink}
          strokeWidth={4}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      ) : null}
      {downCents > HARDLY_CENTS ? (
        <G>
          <Rule from={[0, y(-downCents)]} to={[width, y(-downCents)]} found />
          <Mark x={SIDE} y={y(-downCents) + TEXT} text={`${Math.round(downCents)} cents down`} found />
        </G>
      ) : null}
      {upCents > HARDLY_CENTS ? (
        <G>
          <Rule from={[0, y(upCents)]} to={[width, y(upCents)]} found />
          <Mark x={SIDE} y={y(upCents) - 6} text={`${Math.round(upCents)} cents up`} found />
        </G>
      ) : null}
    </G>
  );
}
