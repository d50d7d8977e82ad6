/** For tests: screen frames and the page's clock go on when the test says so. */
export interface Frames {
  pass(ms?: number): void;
  /** Time goes by and nothing is drawn. */
  wait(ms: number): void;
}

export function installFrames(): Frames {
  let due: FrameRequestCallback[] = [];
  let now = 0;
  jest.spyOn(performance, 'now').mockImplementation(() => now);
  if (!('mark' in performance)) Object.assign(performance, { mark: () => undefined });
  globalThis.requestAnimationFrame = (callback) => due.push(callback);
  globalThis.cancelAnimationFrame = () => (due = []);
  return {
    pass(ms = 250) {
      now += ms;
      const these = due;
      due = [];
      for (const each of these) each(now);
    },
    wait(ms) {
      now += ms;
    },
  };
}

/** Promises that are settled already are seen to. */
export async function settled(): Promise<void> {
  for (let i = 0; i < 20; i++) await Promise.resolve();
}
