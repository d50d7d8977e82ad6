/** What the bundler writes into the app's code, for tests that run without it. */
process.env.EXPO_OS = 'web';
