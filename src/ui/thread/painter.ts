import type { Palette } from '../theme';

/** One live frame: music time, pitch (NaN where nothing sounds), level, air and ring. */
export interface ThreadPoint {
  readonly seconds: number;
  readonly midi: number;
  readonly levelDb: number;
  readonly airinessDb: number;
  /** Seconds into the take. */
  readonly at: number;
  /** In partials; NaN: not known. */
  readonly ring: number;
}

/** Where a point lies on the page, in CSS pixels. */
export interface ThreadPlane {
  readonly xOf: (seconds: number) => number;
  readonly yOf: (midi: number) => number;
}

const THINNEST = 1.2;
const THICKEST = 11;
const QUIET_DB = -60;
const LOUD_DB = -10;
const CLEAR_DB = -32;
const AIRY_DB = -8;
/** A leap of the pitch between two frames is drawn thin: it is the way, not the note. */
const LEAP_SEMITONES = 0.5;
/** Time jumping back by more than this begins another thread. */
const BACK_SECONDS = 0.02;

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

/** Draws the thread as it grows; only what is new is drawn. */
export class ThreadPainter {
  private last: ThreadPoint | null = null;
  private strand = 0;

  constructor(
    private readonly context: CanvasRenderingContext2D,
    private readonly plane: ThreadPlane,
    palette: Palette,
    private readonly scale: number,
    /** A thread that begins anew takes the place of the one before. */
    private readonly anew = false,
  ) {
    context.lineCap = 'round';
    context.strokeStyle = palette.ink;
  }

  /** Where the thread ends now, in CSS pixels; null when it is cut. */
  get tip(): { x: number; y: number } | null {
    return this.last && !Number.isNaN(this.last.midi)
      ? { x: this.plane.xOf(this.last.seconds), y: this.plane.yOf(this.last.midi) }
      : null;
  }

  push(point: ThreadPoint): void {
    const before = this.last;
    this.last = point;
    const back = before !== null && point.seconds < before.seconds - BACK_SECONDS;
    if (back && this.anew) {
      const { width, height } = this.context.canvas;
      this.context.clearRect(0, 0, width, height);
    }
    if (!before || back || Number.isNaN(before.midi) || Number.isNaN(point.midi)) return;
    const fray = fraying(point.airinessDb);
    const leap = Math.abs(point.midi - before.midi) > LEAP_SEMITONES;
    const width = leap ? THINNEST : thickness(point.levelDb);
    this.stroke(before, point, 0, width * (1 - 0.55 * fray), 1);
    if (fray <= 0.15) return;
    // Loose fibres beside the thread, further out the more air there is.
    this.strand++;
    const reach = width * (0.6 + 1.2 * fray);
    if (this.strand % 3 !== 0) this.stroke(before, point, reach * Math.sin(this.strand * 0.9), 0.9, 0.55);
    if (this.strand % 4 !== 0)
      this.stroke(before, point, -reach * Math.sin(this.strand * 0.7 + 1), 0.9, 0.55);
  }

  private stroke(from: ThreadPoint, to: ThreadPoint, offset: number, thick: number, alpha: number): void {
    const { context, scale, plane } = this;
    context.globalAlpha = alpha;
    context.lineWidth = thick * scale;
    context.beginPath();
    context.moveTo(plane.xOf(from.seconds) * scale, (plane.yOf(from.midi) + offset) * scale);
    context.lineTo(plane.xOf(to.seconds) * scale, (plane.yOf(to.midi) + offset) * scale);
    context.stroke();
    context.globalAlpha = 1;
  }
}
