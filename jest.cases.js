/**
 * Property tests play the same cases at every run, so that a failure is the same for everybody.
 * `CASES=12 npm run unit` plays others; what they find becomes a test of its own.
 */
const fc = require('fast-check');

fc.configureGlobal({ seed: Number(process.env.CASES ?? 1) });
