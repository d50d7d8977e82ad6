/** Cautions that more than one family shows. */
export const QUIET = 'Drones on headphones: volume low.';
export const DIZZY = 'Dizzy, numb or short of breath: stop, breathe normally, hold shorter.';
export const SHORT_DOSE = 'High and loud work in short doses: lip and ears first. The block ends by itself.';
