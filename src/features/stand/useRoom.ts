import { useCallback, useState } from 'react';
import type { LayoutChangeEvent } from 'react-native';

/** The height that a part of the stand is given. @param guess until it has been laid out. */
export function useRoom(guess: number) {
  const [height, setHeight] = useState(guess);
  const onLayout = useCallback(
    (event: LayoutChangeEvent) => setHeight(Math.floor(event.nativeEvent.layout.height)),
    [],
  );
  return { height, onLayout };
}
