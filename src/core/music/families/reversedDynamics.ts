import { defineFamily } from '../family';
import { count, note, tempo } from '../parameters';

export const reversedDynamics = defineFamily({
  id: 'reversed-dynamics',
  title: 'Reversed dynamics',
  section: 'dynamics',
  purposes: ['soft playing', 'tuning', 'music'],
  what: 'A line that always goes flat where it rises and fades: practised growing, then as written.',
  how: 'Play the line growing into its top; then as it is written, fading into the top with the same support.',
  listen: 'The top both ways: the same pitch, loud or soft.',
  enough: 'When the soft top stands where the loud one stood, or after five times each way.',
  measured: 'Pitch of the top both ways, level along both lines.',
  specs: {
    from: note('First note'),
    notes: count('Notes', 3, 8),
    times: count('Times', 1, 4),
    tempo: tempo(),
  },
  counts: { measures: ['both-ways', 'line', 'seam'] },
  defaults: (instrument) => ({ from: instrument.home, notes: 5, times: 2, tempo: 60 }),
  write(writer, { from, notes, times }) {
    const whole = [0, 2, 4, 5, 7, 9, 11, 12].slice(0, notes);
    const start = Math.max(writer.low, Math.min(from, writer.high - whole[whole.length - 1]!));
    const row = whole.map((up) => start + up).filter((written) => writer.has(written));
    const line = (hairpin: 'grow' | 'fade', role: 'reversed' | 'as-written') => {
      writer.setDynamic(hairpin === 'grow' ? 'p' : 'f');
      row.forEach((written, i) =>
        writer.note(written, i === row.length - 1 ? 2 : 1, {
          attack: i === 0 ? 'tongued' : 'none',
          hairpin,
          role,
          label: i === 0 ? role.replace('-', ' ') : null,
        }),
      );
      writer.fillBar(true);
      writer.breathe();
    };
    for (let i = 0; i < times; i++) {
      line('grow', 'reversed');
      line('fade', 'as-written');
    }
  },
});
