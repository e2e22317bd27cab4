/** Arrows between files and folders. `npm run lint` holds them; type imports count too. */
const only = (from, to) => ({
  name: `${from} stands on ${to.join(', ')} alone`,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: { path: '^(src|app|server|cli)/', pathNot: to.map((folder) => `^src/${folder}/`) },
});

module.exports = {
  forbidden: [
    { name: 'no circles', severity: 'error', from: {}, to: { circular: true } },
    only('core', ['core']),
    only('engine', ['engine', 'core']),
    only('store', ['store', 'engine', 'core']),
    {
      name: 'drawing is the top of the core',
      comment: 'Operations and their folders know nothing of how a piece is compiled and drawn.',
      severity: 'error',
      from: { path: '^src/core/(?!render/)' },
      to: { path: '^src/core/render/' },
    },
    {
      name: 'operations do not know one another',
      severity: 'error',
      from: { path: '^src/core/(sources|mask|treatments)/' },
      to: { path: '^src/core/(sources|mask|treatments|ready|piece)/', pathNot: '^src/core/$1/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'shared tools stand below operations',
      severity: 'error',
      from: { path: '^src/core/(image|color|graph|lay|strokes|guards|materials)/' },
      to: { path: '^src/core/(sources|mask|treatments|ready|piece)/', dependencyTypesNot: ['type-only'] },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(\\.(web)?test\\.tsx?$|^src/(testing|kernels)/)' },
  },
};
