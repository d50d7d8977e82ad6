import { useEffect, useState, type ComponentType, type ReactNode } from 'react';
import { mendedByLoadingAnew } from './updates';

export type Later<P> = ComponentType<P> & {
  /** Loads it before it is shown, which it then is at once. */
  readonly ahead: () => Promise<void>;
};

/** How long a piece that did not come is left before it is asked for once more, milliseconds. */
const AGAIN_MS = 700;

/** A part of the app that could not be loaded, in words. */
export class PartMissing extends Error {
  override readonly name = 'PartMissing';
  constructor(options: ErrorOptions) {
    super(
      'A part of this page could not be loaded: there is no network, or a newer Gold Reed is there.',
      options,
    );
  }
}

/**
 * What is loaded, asked for twice before it counts as failed: a train's network is away for a moment, and a page that is being
 * left breaks off what it still loads, which is no fault of the page.
 */
const askedTwice = <T,>(load: () => Promise<T>): Promise<T> =>
  load().catch(async () => {
    await new Promise((passed) => setTimeout(passed, AGAIN_MS));
    return load().catch((cause: unknown) => {
      throw new PartMissing({ cause });
    });
  });

/**
 * A component that is loaded when it is first shown, not with the first page. Once it is there it is shown at once: React's own
 * way of waiting (Suspense) keeps what stands in its place for a third of a second, however soon it has come.
 * What fails is thrown to the nearest error boundary, and tried anew when that renders it again.
 * @param meanwhile what stands in its place until then; a whole page needs one of its own shape.
 */
export function later<P extends object>(
  load: () => Promise<ComponentType<P>>,
  meanwhile: ReactNode = null,
): Later<P> {
  // Shared by all places that show it, so that the second finds it ready.
  let ready: { readonly Part: ComponentType<P> } | null = null;
  const ahead = async () => {
    ready ??= { Part: await askedTwice(load) };
  };
  function Later(props: P) {
    const [shown, show] = useState(ready);
    const [failed, fail] = useState<{ readonly error: unknown } | null>(null);
    useEffect(() => {
      if (shown) return;
      let here = true;
      ahead().then(
        () => {
          if (here) show(ready);
        },
        async (error: unknown) => {
          const mended = await mendedByLoadingAnew();
          if (here && !mended) fail({ error });
        },
      );
      return () => {
        here = false;
      };
    }, [shown]);
    if (failed) throw failed.error;
    return shown ? <shown.Part {...props} /> : meanwhile;
  }
  return Object.assign(Later, { ahead });
}
