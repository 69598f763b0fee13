/** Layers point one way only; inside a folder files are imported, across folders its door. */
const layer = (from, to) => ({
  name: `${from}-stays-below`,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: { path: `^src/(${to})/` },
});

module.exports = {
  forbidden: [
    {
      name: 'no-circular',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    layer('core', 'formats|contract|server|web|cli'),
    layer('formats', 'contract|server|web|cli'),
    layer('contract', 'server|web|cli'),
    layer('server', 'web|cli'),
    layer('web', 'server|cli'),
    layer('cli', 'server|web'),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.base.json' },
    tsPreCompilationDeps: true,
  },
};
