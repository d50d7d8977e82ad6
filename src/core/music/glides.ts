import type { Role } from './score';

/** Where a glide begins and ends: −1 bent down, 0 plain, 1 bent up. */
export interface Glide {
  readonly from: -1 | 0 | 1;
  readonly to: -1 | 0 | 1;
}

const GLIDES: Readonly<Partial<Record<Role, Glide>>> = {
  'bend-down': { from: 0, to: -1 },
  'bend-back-up': { from: -1, to: 0 },
  'bend-up': { from: 0, to: 1 },
  'bend-back-down': { from: 1, to: 0 },
};

/** The glide that a note's role asks for; null where the pitch stays. */
export const glideOf = (role: Role | null): Glide | null => (role === null ? null : (GLIDES[role] ?? null));
