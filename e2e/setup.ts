/** A browser test plays music in real time. */
jest.setTimeout(90_000);
