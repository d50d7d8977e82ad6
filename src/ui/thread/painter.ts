import type { Palette } from '../theme';

/** Where the thread runs: time to the right, pitch upward. */
export interface ThreadFrame {
  readonly width: number;
  readonly height: number;
  /** Time at the left edge and how much of it fits. */
  readonly fromSeconds: number;
  readonly spanSeconds: number;
  /** Half of the height, in cents. */
  readonly reachCents: number;
}

/** One live frame against the asked pitch; `cents` is NaN where nothing sounds. */
export interface ThreadPoint {
  readonly seconds: number;
  readonly cents: number;
  readonly levelDb: number;
  readonly airinessDb: number;
}

const THINNEST = 1.2;
const THICKEST = 11;
const QUIET_DB = -60;
const LOUD_DB = -10;
const CLEAR_DB = -32;
const AIRY_DB = -8;

const between = (value: number, low: number, high: number) =>
  Math.max(0, Math.min(1, (value - low) / (high - low)));

/** Width of the thread for a level. */
export function thickness(levelDb: number): number {
  return THINNEST + (THICKEST - THINNEST) * between(levelDb, QUIET_DB, LOUD_DB) ** 1.4;
}

/** How frayed the thread is, 0 … 1. */
export function fraying(airinessDb: number): number {
  return Number.isNaN(airinessDb) ? 0 : between(airinessDb, CLEAR_DB, AIRY_DB);
}

/**
 * Draws the thread as it grows. Only what is new is drawn; when the right edge is reached the picture moves on to the
 * left by itself. Returns how much was drawn, for the measuring of speed.
 */
export class ThreadPainter {
  private frame: ThreadFrame;
  private last: ThreadPoint | null = null;
  private strand = 0;

  constructor(
    private readonly context: CanvasRenderingContext2D,
    frame: ThreadFrame,
    private readonly palette: Palette,
    private readonly scale: number,
  ) {
    this.frame = frame;
    context.lineCap = 'round';
    context.strokeStyle = palette.ink;
  }

  /** Where the thread ends now, in CSS pixels; null when it is cut. */
  get tip(): { x: number; y: number } | null {
    return this.last && !Number.isNaN(this.last.cents)
      ? { x: this.x(this.last), y: this.y(this.last) }
      : null;
  }

  get view(): ThreadFrame {
    return this.frame;
  }

  push(point: ThreadPoint): void {
    if (point.seconds > this.frame.fromSeconds + this.frame.spanSeconds * 0.96) this.moveOn();
    const before = this.last;
    this.last = point;
    if (!before || Number.isNaN(before.cents) || Number.isNaN(point.cents)) return;
    if (point.seconds < this.frame.fromSeconds) return;
    const { context, scale } = this;
    const fray = fraying(point.airinessDb);
    const width = thickness(point.levelDb);
    const [x1, y1, x2, y2] = [this.x(before), this.y(before), this.x(point), this.y(point)].map(
      (v) => v * scale,
    ) as [number, number, number, number];
    const stroke = (offset: number, thick: number, alpha: number) => {
      context.globalAlpha = alpha;
      context.lineWidth = thick * scale;
      context.beginPath();
      context.moveTo(x1, y1 + offset * scale);
      context.lineTo(x2, y2 + offset * scale);
      context.stroke();
    };
    stroke(0, width * (1 - 0.55 * fray), 1);
    if (fray > 0.15) {
      // Loose fibres beside the thread, further out the more air there is.
      this.strand++;
      const reach = width * (0.6 + 1.2 * fray);
      if (this.strand % 3 !== 0) stroke(reach * Math.sin(this.strand * 0.9), 0.9, 0.55);
      if (this.strand % 4 !== 0) stroke(-reach * Math.sin(this.strand * 0.7 + 1), 0.9, 0.55);
    }
    context.globalAlpha = 1;
  }

  private moveOn(): void {
    const { canvas } = this.context;
    const by = this.frame.spanSeconds / 3;
    const pixels = Math.round((by / this.frame.spanSeconds) * canvas.width);
    this.context.globalCompositeOperation = 'copy';
    this.context.drawImage(canvas, -pixels, 0);
    this.context.globalCompositeOperation = 'source-over';
    this.frame = { ...this.frame, fromSeconds: this.frame.fromSeconds + by };
  }

  private x(point: ThreadPoint): number {
    return ((point.seconds - this.frame.fromSeconds) / this.frame.spanSeconds) * this.frame.width;
  }

  private y(point: ThreadPoint): number {
    const limited = Math.max(-this.frame.reachCents, Math.min(this.frame.reachCents, point.cents));
    return this.frame.height * (0.5 - limited / (2 * this.frame.reachCents));
  }
}
