const { takesStamp } = require('./scripts/takesStamp.cjs');

/** The core, the server and the browser tests are plain modern TypeScript; the store runs on the app's web preset. */
const aliases = { '^@/(.*)$': '<rootDir>/src/$1', '^@server/(.*)$': '<rootDir>/server/$1' };

const swc = [
  '@swc/jest',
  { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } },
];

const plain = {
  globals: { TAKES_STAMP: takesStamp(__dirname) },
  moduleNameMapper: aliases,
  testEnvironment: 'node',
  // Looking globals up from inside Jest's sandbox is slow; these are looked up in every inner loop.
  sandboxInjectedGlobals: ['Math', 'Number', 'Float64Array', 'Float32Array'],
  // The app's Babel preset rewrites classes and loops for old browsers, which is too slow for signal processing.
  transform: {
    '\\.m?[jt]s$': swc,
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
      testMatch: ['<rootDir>/e2e/**/*.e2e.ts'],
      setupFilesAfterEnv: ['<rootDir>/e2e/setup.ts'],
    },
    {
      preset: 'jest-expo/web',
      transform: { '/src/(core|store|audio|worker)/.*\\.ts$': swc },
      moduleNameMapper: {
        ...aliases,
        '^d3-(array|shape|path|scale|interpolate|color|format|time|time-format)$':
          '<rootDir>/node_modules/d3-$1/dist/d3-$1.js',
      },
      displayName: 'app',
      setupFilesAfterEnv: ['<rootDir>/jest.cases.js'],
      testMatch: ['<rootDir>/src/{audio,features,store,ui,worker}/**/*.test.ts'],
    },
  ],
};
