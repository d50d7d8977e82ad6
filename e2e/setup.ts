/** A browser test plays music in real time, and a busy machine takes its time around it. */
jest.setTimeout(240_000);

// On a machine that is busy with something else the stand-in microphone loses samples, which no patience brings back: such
// a test is played once more. What failed the first time is logged, so that a real fault is still seen.
jest.retryTimes(1, { logErrorsBeforeRetry: true });
