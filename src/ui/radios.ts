interface GroupKey {
  readonly key: string;
  readonly target: EventTarget | null;
  readonly currentTarget: HTMLElement;
  preventDefault(): void;
}

const STEPS: Readonly<Record<string, number>> = {
  ArrowRight: 1,
  ArrowDown: 1,
  ArrowLeft: -1,
  ArrowUp: -1,
  ' ': 0,
};

/**
 * What makes a view a group of radios for the keyboard: Tab comes to the chosen one, arrows choose its neighbour, space
 * chooses where one is (the radio group pattern of the ARIA authoring practices). Its radios take `radioProps`.
 */
export function radioGroupProps<T>(label: string, values: readonly T[], onChange: (value: T) => void) {
  return {
    role: 'radiogroup' as const,
    'aria-label': label,
    onKeyDown: (event: GroupKey) => {
      const step = STEPS[event.key];
      const radios = Array.from(event.currentTarget.querySelectorAll<HTMLElement>('[role=radio]'));
      const here = radios.findIndex((radio) => radio === event.target);
      if (step === undefined || here < 0) return;
      event.preventDefault();
      const next = (here + step + values.length) % values.length;
      onChange(values[next]!);
      radios[next]?.focus();
    },
  };
}

export function radioProps<T>(values: readonly T[], chosen: T, each: T, onChange: (value: T) => void) {
  const reached = values.includes(chosen) ? chosen : values[0];
  return {
    role: 'radio' as const,
    'aria-checked': each === chosen,
    tabIndex: each === reached ? (0 as const) : (-1 as const),
    onPress: () => onChange(each),
  };
}
