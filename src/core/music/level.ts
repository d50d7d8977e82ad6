/** How far a player is: sets what an exercise asks for, and how strictly it is judged. */
export const LEVELS = ['beginner', 'steady', 'advanced', 'exacting'] as const;
export type Level = (typeof LEVELS)[number];
