import { useEffect, useRef } from 'react';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest('input, textarea, select, [role="slider"], [role="spinbutton"], [role="radio"]') !== null;
/** A key that is held by what has the focus does what that is for. */
const isPressing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('button, a, [role="button"]') !== null;

/** Keys and pedals of a page by the browser's names for them, letters in small ones: what each does, as long as nobody types. */
export function useKeys(actions: Readonly<Record<string, () => void>>): void {
  const now = useRef(actions);
  useEffect(() => {
    now.current = actions;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || isTyping(event.target)) return;
      const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
      if (key === ' ' && isPressing(event.target)) return;
      const action = now.current[key];
      if (!action) return;
      event.preventDefault();
      action();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
}
