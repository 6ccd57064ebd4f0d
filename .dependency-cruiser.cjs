/** The house has one way: core ← contract ← server and web. Nothing points back, nothing goes round in circles. */
const only = (from, allowed) => ({
  name: `${from}-depends-one-way`,
  severity: 'error',
  from: { path: `^${from}/` },
  to: { path: '^(core|contract|server|web|e2e|scripts)/', pathNot: `^(${[from, ...allowed].join('|')})/` },
})
module.exports = {
  forbidden: [
    only('core', []),
    only('contract', ['core']),
    only('server', ['contract', 'core']),
    only('web', ['contract', 'core']),
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'no-circles-of-folders',
      comment: 'Folders are a house too: imports of types count like any other.',
      severity: 'error',
      scope: 'folder',
      from: {},
      to: { circular: true },
    },
    {
      name: 'core-touches-nothing-outside',
      comment:
        'No I/O, no clock, no interface code: schemas (zod), a queue (tinyqueue), a comparison (fast-deep-equal), all pure.',
      severity: 'error',
      from: { path: '^core/src/' },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'], pathNot: 'node_modules/(zod|tinyqueue|fast-deep-equal)/' },
    },
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '\\?worker$' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      mainFields: ['module', 'main', 'types'],
    },
  },
}
