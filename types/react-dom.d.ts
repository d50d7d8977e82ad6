declare module 'react-dom/server' {
  import type { ReactNode } from 'react';

  /** The markup of an element, once, without anything that would bring it to life. */
  export function renderToStaticMarkup(element: ReactNode): string;
}

declare module 'react-dom/client' {
  import type { ReactNode } from 'react';

  export interface Root {
    render(element: ReactNode): void;
    unmount(): void;
  }
  export function createRoot(container: Element): Root;
}
