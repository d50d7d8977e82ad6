import { useCallback, useState } from 'react';
import type { LayoutChangeEvent } from 'react-native';

/** The height that a part of the stand is given. */
export function useRoom() {
  const [height, setHeight] = useState(0);
  const onLayout = useCallback(
    (event: LayoutChangeEvent) => setHeight(Math.floor(event.nativeEvent.layout.height)),
    [],
  );
  return { height, onLayout };
}
