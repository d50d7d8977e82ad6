import type { School } from './rules';

export const SCHOOLS: readonly { readonly id: School; readonly name: string; readonly about: string }[] = [
  {
    id: 'air',
    name: 'air first',
    about: 'Speed, amount and pressure of the air decide; the body follows by itself.',
  },
  {
    id: 'support',
    name: 'support first',
    about: 'The push of the belly drives everything; some push outward, some let it fall.',
  },
  { id: 'shape', name: 'shape first', about: 'Lips, jaw, mouth, tongue and the angle decide.' },
];
