import { askForFile } from './files';

/** The recording chosen for the next take. A file cannot be stored or put into an address, so it waits here. */
let chosen: File | null = null;

export const chooseFile = (file: File | null) => {
  chosen = file;
};
export const chosenFile = () => chosen;

/** Asks for a recording with the browser's own dialog; null when the player changes their mind. */
export const askForRecording = () => askForFile('audio/*,.wav,.mp3,.ogg,.m4a,.flac');
