import { lazy, Suspense, type ComponentType, type ReactNode } from 'react';

/**
 * A component that is loaded when it is first shown, not with the first page.
 * @param meanwhile what stands in its place until then; a whole page needs one of its own shape.
 */
export function later<P extends object>(
  load: () => Promise<ComponentType<P>>,
  meanwhile: ReactNode = null,
): ComponentType<P> {
  const Part = lazy(async () => ({ default: await load() })) as unknown as ComponentType<P>;
  return function Later(props: P) {
    return (
      <Suspense fallback={meanwhile}>
        <Part {...props} />
      </Suspense>
    );
  };
}
