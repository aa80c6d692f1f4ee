/** Arrows point down only; a wrong one fails `npm test`. Folder by folder, what each may import. */
const core = (name, ...allowed) => ({
  name: `core-${name}`,
  comment: `core/${name} may import only ${['itself', ...allowed].join(', ')}, and the files beside the folders`,
  severity: 'error',
  from: { path: `^src/core/${name}/`, pathNot: '\\.test\\.ts$' },
  to: { path: '^src/core/', pathNot: `^src/core/([a-zA-Z]+\\.ts$|${[name, ...allowed].join('/|')}/)` },
});

const SOLVERS = [
  'reference',
  'units',
  'geometry',
  'fluids',
  'tank',
  'network',
  'gauge',
  'range',
  'fit',
  'fittings',
  'mounts',
  'weight',
  'time',
];
/** What is written of a system: how it is described, its parts, senders and shapes by kind, and the whole. */
const WRITTEN = ['schema', 'components', 'senders', 'shapes', 'plan'];

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-is-pure',
      comment: 'The core knows no interface, database, Node or network; of packages only those that compute',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: {
        path: '^(src/(app|ui|server|db|cli|workers)/|node_modules/)',
        pathNot: '^node_modules/(@types/)?(yup|earcut|manifold-3d|ml-matrix|papaparse|dequal)/',
      },
    },
    {
      name: 'core-uses-no-node',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    core('units', 'reference'),
    core('reference', 'units'),
    core('geometry', 'units'),
    core('fluids', 'units', 'reference'),
    core('network', 'fluids', 'units', 'reference'),
    core('tank', 'geometry', 'units'),
    core('gauge', 'geometry', 'units'),
    core('range', 'units'),
    core('fittings', 'units', 'reference'),
    core('mounts', 'geometry', 'units', 'reference'),
    core('weight', 'geometry'),
    core('time'),
    core('fit', 'geometry', 'units', 'reference'),
    core('formats', 'geometry', 'units'),
    core('drawings', 'geometry', 'units'),
    core('schema', 'formats', 'units'),
    core('components', 'schema', 'network', 'units', 'reference'),
    core('senders', 'schema', 'gauge', 'geometry', 'units', 'reference'),
    core('shapes', 'schema', 'geometry', 'units', 'reference'),
    core('plan', ...SOLVERS, 'formats', 'schema', 'components', 'senders', 'shapes'),
    core('model', ...SOLVERS, 'formats', ...WRITTEN),
    core('state', 'geometry', 'fluids', 'units', ...WRITTEN, 'model'),
    core('answers', ...SOLVERS, 'formats', ...WRITTEN, 'model', 'state'),
    core('reports', ...SOLVERS, 'formats', ...WRITTEN, 'model', 'state', 'answers', 'drawings'),
    core('rules', ...SOLVERS, 'formats', ...WRITTEN, 'model', 'state', 'answers'),
    {
      name: 'db-below-server',
      severity: 'error',
      from: { path: '^src/db/' },
      to: { path: '^src/(app|ui|server|workers|cli)/' },
    },
    {
      name: 'workers-are-thin',
      severity: 'error',
      from: { path: '^src/workers/' },
      to: { path: '^src/(app|ui|server|db|cli)/' },
    },
    {
      name: 'ui-off-the-server',
      severity: 'error',
      from: { path: '^src/ui/' },
      to: { path: '^src/(app|server|db|cli)/' },
    },
    {
      name: 'cli-on-the-core',
      severity: 'error',
      from: { path: '^src/cli/' },
      to: { path: '^src/(app|ui|server|workers)/' },
    },
    {
      name: 'cli-data-alone-on-the-store',
      severity: 'error',
      from: { path: '^src/cli/', pathNot: '^src/cli/data\\.ts$' },
      to: { path: '^src/db/' },
    },
    {
      name: 'server-off-the-interface',
      severity: 'error',
      from: { path: '^src/server/' },
      to: { path: '^src/(app|ui|cli)/' },
    },
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
