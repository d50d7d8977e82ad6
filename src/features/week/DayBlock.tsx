import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { families } from '@/core/music';
import { isRest, type Block } from '@/core/plan';
import { Button, fonts, usePalette } from '@/ui';

export const sayTitle = ({ family }: Block) => families.find(({ id }) => id === family)?.title ?? 'Rest';

/** A block that can be taken by its handle: with a finger, a mouse, or the space bar and the arrow keys. */
export function Sortable({ id, title, children }: { id: string; title: string; children: ReactNode }) {
  const palette = usePalette();
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  return (
    <div
      ref={setNodeRef}
      style={{
        transform: CSS.Translate.toString(transform) ?? 'none',
        transition,
        display: 'flex',
        gap: 4,
        background: isDragging ? palette.leaf : 'transparent',
      }}
    >
      <div style={{ flex: 1, minWidth: 0 }}>{children}</div>
      <button
        {...attributes}
        {...listeners}
        aria-label={`Move ${title}`}
        style={{
          width: 44,
          height: 44,
          border: 0,
          background: 'transparent',
          color: palette.softInk,
          font: `24px ${fonts.bold}, sans-serif`,
          touchAction: 'none',
          cursor: 'grab',
        }}
      >
        ≡
      </button>
    </div>
  );
}

interface ToolsProps {
  readonly block: Block;
  readonly onSwap: () => void;
  readonly onShorten: () => void;
  readonly onSkip: () => void;
  readonly onLock: () => void;
  readonly onMove: (by: number) => void;
  /** The next practice day, and moving it there. */
  readonly later: string;
  readonly onLater: () => void;
}

export function BlockTools({ block, onSwap, onShorten, onSkip, onLock, onMove, later, onLater }: ToolsProps) {
  const title = sayTitle(block);
  const keys: readonly (readonly [string, () => void])[] = isRest(block)
    ? [[block.skipped ? 'Put back' : 'Leave out', onSkip]]
    : [
        ['Another', onSwap],
        ...(block.repeats > 1 ? [['Shorter', onShorten] as const] : []),
        [block.skipped ? 'Put back' : 'Leave out', onSkip],
        [block.locked ? 'Let go' : 'Keep here', onLock],
        ['Earlier', () => onMove(-1)],
        [`To ${later}`, onLater],
      ];
  return (
    <View style={styles.tools}>
      {keys.map(([label, onPress]) => (
        <Button key={label} look="quiet" label={label} spoken={`${label}: ${title}`} onPress={onPress} />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 20 },
});
