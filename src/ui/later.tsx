import { lazy, Suspense, type ComponentType } from 'react';

/** A component that is loaded when it is first shown, not with the first page. */
export function later<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  const Part = lazy(async () => ({ default: await load() })) as unknown as ComponentType<P>;
  return function Later(props: P) {
    return (
      <Suspense fallback={null}>
        <Part {...props} />
      </Suspense>
    );
  };
}
