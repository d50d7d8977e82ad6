import { expectsPartner, type Score } from './score';

/** What an exercise asks for besides the instrument. */
export type Need = 'drone' | 'partner' | 'voice' | 'no-instrument';

/** In words, for those who look for something that can be done here and now. */
export const NEEDS: Readonly<Record<Need, string>> = {
  drone: 'a drone, best on headphones',
  partner: 'a partner who holds the pitch',
  voice: 'your voice as well',
  'no-instrument': 'no instrument, only air',
};

/** What a score needs besides the instrument: a drone, a partner, a voice. */
export function needsOf(score: Score): Need[] {
  const sounds = score.drone.length > 0 && (!score.free || score.parameters['drone'] === true);
  const sings = !expectsPartner(score) && (score.company || score.notes.some(({ company }) => company));
  return [
    ...(sounds ? ['drone' as const] : []),
    ...(expectsPartner(score) ? ['partner' as const] : []),
    ...(sings && !sounds ? ['voice' as const] : []),
    ...(score.notes.length === 0 && score.pictures.length > 0 ? ['no-instrument' as const] : []),
  ];
}
