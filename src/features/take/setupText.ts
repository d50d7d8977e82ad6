import type { Setup } from '@/core/take';

/** What the player told of instrument and day, in one line. */
export function setupText({ slideMm, temperatureC, warmth, reed, room, water }: Setup): string {
  const parts = [
    slideMm === null ? null : `slide ${slideMm} mm`,
    temperatureC === null ? null : `${temperatureC} °C`,
    warmth,
    reed === '' ? null : reed,
    room === '' ? null : room,
    water === null ? null : water ? 'water cleared' : 'water not cleared',
  ].filter((part) => part !== null);
  return parts.length === 0 ? 'nothing told' : parts.join(' · ');
}
