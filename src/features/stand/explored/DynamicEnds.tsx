import { extent } from 'd3-array';
import { G, Line } from 'react-native-svg';
import type { ExploredPicture } from '@/core/hearing/following';
import { useNoteName, usePalette } from '@/ui';
import { Mark, Rule, scaled, TEXT, type Room } from './plane';

const SIDE = 10;
const LEAST_DB = 30;

/** Each note as an upright piece between its softest and its loudest, and the level of now across them. */
export function DynamicEnds({
  picture,
  width,
  height,
}: Room & { picture: ExploredPicture & { kind: 'window' } }) {
  const palette = usePalette();
  const nameOf = useNoteName();
  const { notes, nowDb } = picture;
  const levels = [...notes.flatMap(({ softDb, loudDb }) => [softDb, loudDb]), nowDb].filter(
    (db) => db !== null,
  );
  const [low = -LEAST_DB, high = 0] = extent(levels);
  const middle = (low + high) / 2;
  const half = Math.max(LEAST_DB / 2, (high - low) / 2);
  const y = scaled([middle - half, middle + half], [height - 2.6 * TEXT, 1.8 * TEXT]);
  const column = (width - 2 * SIDE) / Math.max(3, notes.length);
  return (
    <G>
      {notes.map(({ written, softDb, loudDb }, i) => {
        const x = SIDE + (i + 0.5) * column;
        const ends = [softDb, loudDb].filter((db) => db !== null);
        return (
          <G key={written}>
            {ends.map((db, end) => (
              <Rule key={end} from={[x - column / 3, y(db)]} to={[x + column / 3, y(db)]} />
            ))}
            {softDb !== null && loudDb !== null ? (
              <G>
                <Line x1={x} x2={x} y1={y(softDb)} y2={y(loudDb)} stroke={palette.ink} strokeWidth={12} />
                <Mark
                  x={x}
                  y={y(loudDb) - 8}
                  text={`${Math.round(loudDb - softDb)} dB`}
                  anchor="middle"
                  found
                />
              </G>
            ) : null}
            <Mark x={x} y={height - 6} text={nameOf(written)} anchor="middle" />
          </G>
        );
      })}
      {nowDb === null ? null : (
        <Line x1={0} x2={width} y1={y(nowDb)} y2={y(nowDb)} stroke={palette.gold} strokeWidth={3} />
      )}
    </G>
  );
}
