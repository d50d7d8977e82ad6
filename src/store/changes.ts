import * as z from 'zod';

/** What of the store has changed: the parts that pages read. */
export const PARTS = [
  'log',
  'take',
  'draft',
  'bin',
  'settings',
  'music',
  'running',
  'block',
  'unread',
  'plans',
  'session',
  'aside',
  'clock',
] as const;
export type Part = (typeof PARTS)[number];

const messageSchema = z.object({ whose: z.string(), parts: z.array(z.enum(PARTS)) });

/** Tells the other tabs what has changed, and hears it from them. */
export class Changes {
  private readonly channel =
    typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('gold-reed-changes');

  tell(whose: string, parts: readonly Part[]): void {
    this.channel?.postMessage({ whose, parts });
  }

  /** @param whose log that is open here: what changes in another one is no matter. */
  hear(whose: () => string | null, onChange: (parts: readonly Part[]) => void): void {
    this.channel?.addEventListener('message', ({ data }: MessageEvent) => {
      const read = messageSchema.safeParse(data);
      if (read.success && read.data.whose === whose()) onChange(read.data.parts);
    });
  }
}
