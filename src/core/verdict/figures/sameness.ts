import { FEATURE_IDS, type FeatureId } from '@/core/base';
import { about, comparedWith, STEPS, type FigureAbout } from './about';

/** Figures of: sameness. */
export const SAMENESS = {
  sameness: about('Sameness', 'steps from the reference', 1, STEPS),
  unlike: about('Unlike the reference', 'steps', 1, STEPS),
  ...comparedWith<'unlike', FeatureId>('unlike', 'reference', FEATURE_IDS),
  'anchors-same': about(
    'The anchor',
    'returns the same',
    0,
    'Pitch, level and colour of the anchor at each return against the first time.',
  ),
  'anchor-cents': about(
    'The anchor’s pitch',
    'cents from its first',
    1,
    'Pitch of the anchor at a return against its first sounding.',
  ),
  'anchor-steps': about('The anchor’s colour', 'steps from its first', 1, STEPS),
  'two-tongues': about(
    'Two tongued attacks',
    'ms apart in their rise',
    0,
    'The rise of notes tongued with the tip and with the back of the tongue; they are to be indistinguishable.',
  ),
  'breath-body': about(
    'Body without the tongue',
    'steps from the tongued',
    1,
    'Distance of the bodies of the breath-only notes from the tongued ones. Their beginnings may differ.',
  ),
} as const satisfies Record<string, FigureAbout>;
