import { act, type ReactElement } from 'react';
import { createRoot, type Root } from 'react-dom/client';

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });

/** For tests: an element in a page, found by what is said of it and worked by keys and taps. */
export interface Mounted {
  readonly page: HTMLElement;
  /** By role and spoken label. @throws when there is none. */
  find(role: string, label?: string | RegExp): HTMLElement;
  has(role: string, label?: string | RegExp): boolean;
  byId(testId: string): HTMLElement;
  words(): string;
  tap(element: HTMLElement): void;
  press(element: EventTarget, key: string): void;
  show(element: ReactElement): void;
  leave(): void;
}

export function mount(element: ReactElement): Mounted {
  const page = document.createElement('div');
  document.body.append(page);
  let root: Root;
  act(() => {
    root = createRoot(page);
    root.render(element);
  });
  const labelOf = (each: Element) => each.getAttribute('aria-label') ?? each.textContent ?? '';
  const all = (role: string, label?: string | RegExp) =>
    Array.from(page.querySelectorAll<HTMLElement>(`[role="${role}"]`)).filter((each) =>
      label === undefined
        ? true
        : typeof label === 'string'
          ? labelOf(each) === label
          : label.test(labelOf(each)),
    );
  return {
    page,
    find(role, label) {
      const [found] = all(role, label);
      if (!found) throw new Error(`there is no ${role} ${String(label)} in: ${page.textContent}`);
      return found;
    },
    has: (role, label) => all(role, label).length > 0,
    byId(testId) {
      const found = page.querySelector<HTMLElement>(`[data-testid="${testId}"]`);
      if (!found) throw new Error(`there is no ${testId} in: ${page.textContent}`);
      return found;
    },
    words: () => (page.textContent ?? '').replace(/\s+/g, ' '),
    tap(element) {
      act(() => element.click());
    },
    press(element, key) {
      act(() => {
        element.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      });
    },
    show(next) {
      act(() => root.render(next));
    },
    leave() {
      act(() => root.unmount());
      page.remove();
    },
  };
}
