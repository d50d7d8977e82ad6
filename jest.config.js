/** The core and the server are plain TypeScript; what touches React Native runs on the web preset. */
const shared = {
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1', '^@server/(.*)$': '<rootDir>/server/$1' },
};

/** For signal processing the app's Babel preset is too slow: it rewrites classes and loops for old browsers. */
const modern = {
  '\\.m?[jt]s$': [
    '@swc/jest',
    { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } },
  ],
};

module.exports = {
  projects: [
    {
      ...shared,
      displayName: 'core',
      testEnvironment: 'node',
      // Looking globals up from inside Jest's sandbox is slow; these are looked up in every inner loop.
      sandboxInjectedGlobals: ['Math', 'Number', 'Float64Array', 'Float32Array'],
      transform: modern,
      testMatch: [
        '<rootDir>/src/core/**/*.test.ts',
        '<rootDir>/server/**/*.test.ts',
        '<rootDir>/src/worker/**/*.test.ts',
      ],
      transformIgnorePatterns: ['/node_modules/(?!(d3-.*|internmap)/)'],
    },
    {
      ...shared,
      displayName: 'app',
      preset: 'jest-expo/web',
      testMatch: ['<rootDir>/src/store/**/*.test.ts', '<rootDir>/src/ui/**/*.test.tsx'],
    },
  ],
};
