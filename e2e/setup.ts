/** A browser test plays music in real time, and a busy machine takes its time around it. */
jest.setTimeout(240_000);

// On a machine that is busy with something else the stand-in microphone loses samples, which no patience brings back: such
// a test is played once more. `npm test` prints it as flaky, and with CI set counts it as failed.
jest.retryTimes(1, { logErrorsBeforeRetry: true });
