/** A time limit on work that others may end as well. */
export interface Late {
  /** Aborted when the time is over, or with `other`. */
  readonly signal: AbortSignal;
  readonly isLate: () => boolean;
  /** When the work is done: a limit of minutes must not hold what it was for so long. */
  readonly clear: () => void;
}

export function lateAfter(ms: number, other: AbortSignal): Late {
  const ending = new AbortController();
  let late = false;
  const end = () => ending.abort();
  const timer = setTimeout(() => {
    late = true;
    end();
  }, ms);
  if (other.aborted) end();
  else other.addEventListener('abort', end, { once: true });
  return {
    signal: ending.signal,
    isLate: () => late,
    clear: () => {
      clearTimeout(timer);
      other.removeEventListener('abort', end);
    },
  };
}
