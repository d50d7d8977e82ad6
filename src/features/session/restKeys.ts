/** What a player can ask for between two blocks, without looking. */
export type RestWish = 'begin' | 'again' | 'skip' | 'longer' | 'pause' | 'leave';

/** Two presses of one pedal within this time are one wish of their own. */
export const TWICE_MS = 450;

const RIGHT = ['ArrowRight', 'PageDown'];
const LEFT = ['ArrowLeft', 'PageUp'];
const KEYS: Readonly<Record<string, RestWish>> = {
  ' ': 'pause',
  Enter: 'begin',
  r: 'again',
  s: 'skip',
  l: 'longer',
  ArrowDown: 'skip',
  ArrowUp: 'longer',
  Escape: 'leave',
};

/**
 * Keys and pedals between two blocks. A pedal has two sides: right begins, left plays the last one again; pressed twice, right
 * skips and left rests longer. A single press is told once it is sure that no second one comes.
 */
export class RestKeys {
  private waiting: { readonly side: 'right' | 'left'; readonly timer: ReturnType<typeof setTimeout> } | null =
    null;

  constructor(private readonly onWish: (wish: RestWish) => void) {}

  /** @returns whether the key means something here. */
  press(key: string): boolean {
    const side = RIGHT.includes(key) ? 'right' : LEFT.includes(key) ? 'left' : null;
    if (side === null) {
      const wish = KEYS[key.length === 1 ? key.toLowerCase() : key];
      if (wish) this.onWish(wish);
      return wish !== undefined;
    }
    const before = this.waiting;
    this.stop();
    if (before?.side === side) {
      this.onWish(side === 'right' ? 'skip' : 'longer');
      return true;
    }
    const timer = setTimeout(() => {
      this.waiting = null;
      this.onWish(side === 'right' ? 'begin' : 'again');
    }, TWICE_MS);
    this.waiting = { side, timer };
    return true;
  }

  stop(): void {
    if (this.waiting) clearTimeout(this.waiting.timer);
    this.waiting = null;
  }
}
