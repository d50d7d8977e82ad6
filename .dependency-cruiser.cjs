/** No file needs itself by way of others, types and parts that are loaded later included: `npm run check` and `npm test` ask. */
module.exports = {
  forbidden: [{ name: 'no-cycle', severity: 'error', from: {}, to: { circular: true } }],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.mjs', '.cjs', '.js'] },
  },
};
