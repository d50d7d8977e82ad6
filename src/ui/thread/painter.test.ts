import { stage } from '../theme';
import { fraying, thickness, ThreadPainter, type ThreadPoint } from './painter';

/** What is drawn, as lines with their width. */
interface Stroke {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly width: number;
}

function painted(points: readonly Partial<ThreadPoint>[]) {
  const strokes: Stroke[] = [];
  let at: [number, number] = [0, 0];
  let to: [number, number] = [0, 0];
  const context = {
    lineWidth: 0,
    globalAlpha: 1,
    beginPath: () => undefined,
    moveTo: (x: number, y: number) => (at = [x, y]),
    lineTo: (x: number, y: number) => (to = [x, y]),
    stroke: () => strokes.push({ from: at, to, width: context.lineWidth }),
  };
  const painter = new ThreadPainter(
    context as unknown as CanvasRenderingContext2D,
    { xOf: (seconds) => 100 * seconds, yOf: (midi) => -midi },
    stage,
    1,
  );
  points.forEach((point, i) =>
    painter.push({
      seconds: i / 10,
      midi: 69,
      levelDb: -20,
      airinessDb: -50,
      at: i / 10,
      ring: NaN,
      ...point,
    }),
  );
  return { strokes, painter };
}

describe('the thread', () => {
  it('is thicker the louder, and never vanishes', () => {
    const widths = [-90, -60, -40, -20, -10, 0].map(thickness);
    expect([...widths].sort((a, b) => a - b)).toEqual(widths);
    expect(widths[0]).toBeGreaterThan(1);
    expect(widths[4]).toBe(widths[5]);
  });

  it('frays with the air, and where air is not known not at all', () => {
    expect(fraying(NaN)).toBe(0);
    expect(fraying(-40)).toBe(0);
    expect(fraying(-20)).toBeGreaterThan(0);
    expect(fraying(0)).toBe(1);
  });

  it('goes on from where it was, and is cut where nothing sounds', () => {
    const { strokes, painter } = painted([{}, {}, { midi: NaN }, {}, {}]);
    expect(strokes).toHaveLength(2);
    expect(strokes[0]!.from[0]).toBeCloseTo(0, 6);
    expect(strokes[0]!.to[0]).toBeCloseTo(10, 6);
    expect(strokes[1]!.from[0]).toBeCloseTo(30, 6);
    expect(painter.tip).toEqual({ x: 40, y: -69 });
    expect(painted([{}, { midi: NaN }]).painter.tip).toBeNull();
  });

  it('draws a leap thin, whatever its level: it is the way, not the note', () => {
    const [held, leap] = painted([{}, {}, { midi: 81 }]).strokes;
    expect(held!.width).toBeCloseTo(thickness(-20), 6);
    expect(leap!.width).toBeLessThan(2);
  });

  it('begins anew where the music goes back', () => {
    expect(
      painted([{ seconds: 4 }, { seconds: 4.1 }, { seconds: 1 }, { seconds: 1.1 }]).strokes,
    ).toHaveLength(2);
  });
});
