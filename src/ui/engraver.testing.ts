/** The engraver alone, for those who measure what it draws. */
export { engrave } from './notation/engrave';
export { PAPER_WIDTH, paperScale } from './notation/paper';
