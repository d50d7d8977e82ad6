/** The engraver alone, for those who measure what it draws. */
export { engrave } from './notation/engrave';
