/** With its first letter large, as a sentence or a label begins. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
