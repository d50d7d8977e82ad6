import { defineFamily } from '../family';
import { count, note } from '../parameters';

export const roomCheck = defineFamily({
  id: 'room-check',
  title: 'Room check',
  section: 'prepare',
  purposes: ['warming up'],
  what: 'Learns the room: its own noise, what the microphone does by itself, and how loud your ordinary mf is. A live room hides attacks and flatters the tone; a dry one shows all.',
  how: 'Stay silent while asked to, then play one ordinary note at your ordinary mf, stop it cleanly, and stay silent again.',
  listen: 'How long the room answers when your note has stopped.',
  enough: 'Once in each room, and again when something in it has changed.',
  measured: 'Noise floor, your reference level, how long the room rings.',
  specs: { note: note('Note'), beats: count('Hold', 4, 12, 'beats') },
  counts: { measures: ['room'], events: [], feeds: { map: false, seams: false, trends: false } },
  defaults: (instrument) => ({ note: instrument.home, beats: 6 }),
  write(writer, { note: written, beats }) {
    writer.picture(6, { shape: 'rest', from: 0, to: 0, text: 'Silence: the room is heard' });
    writer.rest(2);
    writer.note(written, beats, { label: 'ordinary mf' });
    writer.fillBar();
    writer.picture(4, { shape: 'rest', from: 0, to: 0, text: 'Silence: the room rings out' });
  },
});
