import type { Decibels } from '@/core/base';

/** Share of what a room does to the levels of notes that it does to the dip between two, and the least of it that is reckoned with. */
const DIP_SHARE = 0.45;
const LEAST_DIP: Decibels = 2;

/**
 * The level between two slurred notes is held against those two and not against other notes: in a room the dips of clean slurs differ by
 * less than the levels of notes do, 99 of 100 are under 7.9 dB; most where a tone has hardly more than one partial. In a file by itself: pages that read the log ask for it, and for no measure.
 * @param spreadDb of the levels of the two notes, a standard deviation.
 */
export const dipSpread = (spreadDb: Decibels): Decibels =>
  Math.min(spreadDb, Math.max(LEAST_DIP, DIP_SHARE * spreadDb));
