// No circle of files, type-only imports included. What may import what is the linter's to hold.
module.exports = {
  forbidden: [{ name: 'no-circle', severity: 'error', from: {}, to: { circular: true } }],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
  },
};
