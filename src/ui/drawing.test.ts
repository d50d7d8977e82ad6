import { agoText, dayHeading, daysAgo } from './dates';
import { stage } from './theme';
import { fraying, ThreadPainter, thickness } from './thread/painter';

describe('the thread', () => {
  /** Records what is drawn in the place of a canvas. */
  function easel() {
    const lines: { y1: number; y2: number; width: number; alpha: number }[] = [];
    let from = { x: 0, y: 0 };
    const context = {
      lineWidth: 0,
      globalAlpha: 1,
      beginPath: () => undefined,
      moveTo: (x: number, y: number) => (from = { x, y }),
      lineTo: (_x: number, y: number) =>
        lines.push({ y1: from.y, y2: y, width: context.lineWidth, alpha: context.globalAlpha }),
      stroke: () => undefined,
    };
    const plane = { xOf: (seconds: number) => 50 * seconds, yOf: (midi: number) => 40 - 10 * (midi - 69) };
    const painter = new ThreadPainter(context as unknown as CanvasRenderingContext2D, plane, stage, 1);
    return { painter, lines };
  }
  const point = (seconds: number, midi: number, levelDb = -20, airinessDb = -60) => ({
    seconds,
    midi,
    levelDb,
    airinessDb,
    at: seconds,
    ring: NaN,
  });

  it('is high where the pitch is', () => {
    const { painter, lines } = easel();
    painter.push(point(0, 69));
    painter.push(point(0.1, 69.2));
    painter.push(point(0.2, 68));
    expect(lines.map(({ y1, y2 }) => [y1, y2].map(Math.round))).toEqual([
      [40, 38],
      [38, 50],
    ]);
    expect(lines[1]!.width).toBeLessThan(lines[0]!.width);
  });

  it('begins anew where the music goes back', () => {
    const { painter, lines } = easel();
    painter.push(point(1, 69));
    painter.push(point(0.2, 69));
    expect(lines).toEqual([]);
  });

  it('is cut where there is no pitch', () => {
    const { painter, lines } = easel();
    painter.push(point(0, 69));
    painter.push(point(0.1, NaN));
    expect(painter.tip).toBeNull();
    painter.push(point(0.2, 69));
    expect(lines).toEqual([]);
    expect(painter.tip).toEqual({ x: 10, y: 40 });
  });

  it('is thick when loud and frayed when airy', () => {
    expect(thickness(-15)).toBeGreaterThan(2 * thickness(-40));
    expect(thickness(-200)).toBeGreaterThan(0);
    expect([fraying(NaN), fraying(-50), fraying(0)]).toEqual([0, 0, 1]);
    const { painter, lines } = easel();
    for (let i = 0; i < 20; i++) painter.push(point(i / 20, 69, -20, -10));
    expect(lines.filter((line) => line.alpha < 1).length).toBeGreaterThan(10);
  });
});

test('days count by the calendar, not by hours', () => {
  const now = new Date(2030, 2, 10, 0, 30);
  expect(daysAgo(new Date(2030, 2, 9, 23, 50), now)).toBe(1);
  expect(dayHeading(new Date(2030, 2, 9, 23, 50), now)).toBe('Yesterday');
  expect(dayHeading(new Date(2030, 2, 10, 0, 1), now)).toBe('Today');
  expect(dayHeading(new Date(2030, 2, 1), now)).toBe('Friday 1 March');
  expect(agoText(new Date(2030, 2, 5), now)).toBe('5 days ago');
});
