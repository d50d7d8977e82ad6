/** What a journey asks of a browser, whatever drives it. Places in the page are XPath, which both protocols know. */
export interface Engine {
  readonly name: string;
  goto(url: string): Promise<void>;
  isThere(place: string): Promise<boolean>;
  /** Waits until the place is there. @throws after `ms`, naming the place. */
  see(place: string, ms?: number): Promise<void>;
  /** A tap of the player's own, with all that a browser allows only after one. */
  tap(place: string): Promise<void>;
  text(place: string): Promise<string>;
  address(): Promise<string>;
  /** What the page threw or was refused, as far as the protocol tells. */
  complaints(): Promise<readonly string[]>;
  picture(): Promise<Buffer>;
  close(): Promise<void>;
}

export const byId = (id: string): string => `//*[@data-testid="${id}"]`;
export const byRole = (role: string, name: string): string =>
  `//*[@role="${role}"][normalize-space()="${name}" or @aria-label="${name}"]`;
export const chosen = (radio: string): string => `${radio}[@aria-checked="true"]`;
/** Of the app: the still frame that stands until there is one has a heading too. */
export const HEADING =
  '(//*[@role="heading"][@aria-level="1"][not(ancestor::*[@id="shell"])] | //h1[not(ancestor::*[@id="shell"])])[1]';

/** How long a place is waited for, unless more is asked. */
export const PATIENCE_MS = 20_000;

/** A phone's screen, as far as a window can be made that narrow. */
export const PHONE = { width: 390, height: 844 } as const;

/** Between two looks at the page, milliseconds. */
const PAUSE_MS = 100;

/**
 * Asks something of a place in the page until the page does not refuse: it may be replaced between finding and using it.
 * @throws naming the place and what the page said last, after `ms`.
 */
export async function untilDone<T>(
  place: string,
  act: () => Promise<T>,
  ms: number = PATIENCE_MS,
): Promise<T> {
  for (const begun = Date.now(); ; await new Promise((done) => setTimeout(done, PAUSE_MS))) {
    try {
      return await act();
    } catch (error) {
      if (Date.now() - begun > ms)
        throw new Error(`${place} was waited for ${ms / 1000} s in vain`, { cause: error });
    }
  }
}
