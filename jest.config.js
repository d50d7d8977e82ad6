const { takesStamps } = require('./scripts/takesStamp.cjs');

/** The core, the server and the browser tests are plain modern TypeScript; the store runs on the app's web preset. */
const aliases = { '^@/(.*)$': '<rootDir>/src/$1', '^@server/(.*)$': '<rootDir>/server/$1' };

/** Several times as quick as Babel, which the bundler needs: a cold run would spend a minute on it. */
const swc = (parser) => [
  '@swc/jest',
  {
    jsc: { target: 'es2022', parser, transform: { react: { runtime: 'automatic' } } },
    module: { type: 'commonjs' },
  },
];
const typescript = swc({ syntax: 'typescript' });

const plain = {
  globals: { STAMPS: takesStamps(__dirname) },
  moduleNameMapper: aliases,
  testEnvironment: 'node',
  // Looking globals up from inside Jest's sandbox is slow; these are looked up in every inner loop.
  sandboxInjectedGlobals: ['Math', 'Number', 'Float64Array', 'Float32Array'],
  // The app's Babel preset rewrites classes and loops for old browsers, which is too slow for signal processing.
  transform: {
    '\\.m?[jt]s$': typescript,
  },
  transformIgnorePatterns: ['/node_modules/(?!(d3-.*|internmap|pitchy)/)'],
};

module.exports = {
  projects: [
    {
      ...plain,
      displayName: 'core',
      setupFilesAfterEnv: ['<rootDir>/jest.cases.js'],
      testMatch: ['<rootDir>/src/core/**/*.test.ts', '<rootDir>/server/**/*.test.ts'],
    },
    {
      ...plain,
      displayName: 'e2e',
      testEnvironment: '<rootDir>/e2e/environment.ts',
      testMatch: ['<rootDir>/e2e/**/*.e2e.ts'],
      setupFilesAfterEnv: ['<rootDir>/e2e/setup.ts'],
    },
    {
      preset: 'jest-expo/web',
      transform: {
        '\\.tsx$': swc({ syntax: 'typescript', tsx: true }),
        '\\.ts$': typescript,
        // What is written with Flow is left to the preset.
        '/node_modules/(?!(react-native|@react-native)/).*\\.m?jsx?$': swc({
          syntax: 'ecmascript',
          jsx: true,
        }),
      },
      // What the app's Babel preset writes into the code.
      setupFiles: ['<rootDir>/jest.web.js'],
      moduleNameMapper: {
        ...aliases,
        '^react-native$': 'react-native-web',
        '^d3-(array|shape|path|scale|interpolate|color|format|time|time-format)$':
          '<rootDir>/node_modules/d3-$1/dist/d3-$1.js',
      },
      displayName: 'app',
      setupFilesAfterEnv: ['<rootDir>/jest.cases.js'],
      testMatch: ['<rootDir>/src/{audio,features,store,ui,worker}/**/*.test.ts'],
    },
  ],
};
