import { useSyncExternalStore } from 'react';
import { askForFile } from '@/ui';

/** The recording that has been chosen to listen to; gone after a reload, since a browser forgets files. */
let chosen: File | null = null;
const listeners = new Set<() => void>();

export const chosenFile = (): File | null => chosen;

export function chooseFile(file: File): void {
  chosen = file;
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** The chosen recording, for what is shown of it. */
export const useChosenFile = (): File | null => useSyncExternalStore(subscribe, chosenFile);

/** Asks for a recording with the browser's own dialog; null when the player changes their mind. */
export const askForRecording = (): Promise<File | null> => askForFile('audio/*,.wav,.mp3,.ogg,.m4a,.flac');
