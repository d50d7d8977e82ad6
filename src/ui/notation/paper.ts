/** Between the margins of a sheet of A4, which Letter has too, in CSS pixels. */
export const PAPER_WIDTH = 680;

/** From so many notes on, music on a sheet is set smaller. */
const LONG = 80;

/** Size of a stave on a sheet, for music of so many notes. */
export const paperScale = (notes: number): number => (notes > LONG ? 0.7 : 0.95);
