/** Words over notes that glide; the arrow is the way that the pitch goes. */
export const GLIDE = { down: '↘ down', backUp: '↗ back', up: '↗ up', backDown: '↘ back' } as const;

/** Where a glide begins and ends: −1 bent down, 0 plain, 1 bent up. */
export interface Glide {
  readonly from: -1 | 0 | 1;
  readonly to: -1 | 0 | 1;
}

const GLIDES: ReadonlyMap<string, Glide> = new Map([
  [GLIDE.down, { from: 0, to: -1 }],
  [GLIDE.backUp, { from: -1, to: 0 }],
  [GLIDE.up, { from: 0, to: 1 }],
  [GLIDE.backDown, { from: 1, to: 0 }],
]);

/** The glide that the word over a note asks for; null where the pitch stays. */
export const glideOf = (label: string | null): Glide | null =>
  label === null ? null : (GLIDES.get(label) ?? null);
