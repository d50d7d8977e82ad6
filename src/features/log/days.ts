/** A calendar day as the player’s clock has it: `2026-11-26`. */
export function dayKey(date: Date): string {
  const two = (part: number) => String(part).padStart(2, '0');
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}
