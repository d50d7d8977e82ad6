export { Bore } from './bore/Bore';
export { BoreTube } from './bore/BoreTube';
export { RangeBore } from './bore/RangeBore';
export { Button } from './button';
export { Choice, keyHandler, Stepper } from './controls';
export {
  agoText,
  clockText,
  dayHeading,
  dayKey,
  dayText,
  daysAgo,
  momentText,
  monthText,
  shortDay,
  weekText,
  wholeDay,
} from './dates';
export { Notation } from './notation/Notation';
export { Pictures } from './notation/Pictures';
export { Notice } from './notice';
export { Problems } from './problems';
export { Screen } from './screen';
export { PAPER_WIDTH, paperScale } from './notation/paper';
export { Sheet, SHEET_STYLE } from './sheet';
export { Shell } from './shell';
export { useKeys } from './keys';
export { later, PartMissing } from './later';
export { useOnwards } from './onwards';
export { loadPagesAhead, pageLater } from './pageLater';
export { Body, Heading, Soft, Title } from './text';
export {
  fonts,
  paper,
  PaletteProvider,
  stage,
  usePalette,
  useShape,
  useThemePalette,
  type Palette,
} from './theme';
export type { ThreadPoint } from './thread/painter';
export { ThreadStage, type ThreadHandle } from './thread/ThreadStage';
export { useUpdate } from './updates';
export { radioGroupProps, radioProps } from './radios';
export { RowLink } from './rowLink';
export { Field } from './field';
export { askForFile, askForFiles, download } from './files';
export { fraying, thickness } from './thread/painter';
export { NamingProvider, useNaming, useNoteName } from './naming';
