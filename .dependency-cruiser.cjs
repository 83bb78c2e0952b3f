/** Which folder may import which; see docs/decisions.md. */
const core = [
  'quantity',
  'catalogue',
  'document',
  'log',
  'form',
  'armature',
  'shell',
  'school',
  'clay',
  'load',
  'drying',
  'heat',
  'cure',
  'mould',
  'piece',
  'parting',
  'sizing',
  'plan',
  'finding',
  'evaluate',
  'improve',
  'sheet',
];

const coreOrder = core.slice(0, -1).map((folder, i) => ({
  name: `core-order-${folder}`,
  comment: `${folder} comes before ${core.slice(i + 1).join(', ')} and may not import them`,
  severity: 'error',
  // A test may look at what its folder is for.
  from: { path: `^src/core/${folder}/`, pathNot: '\\.test\\.ts$' },
  to: { path: `^src/core/(${core.slice(i + 1).join('|')})/` },
}));

const between = (from, to, name) => ({ name, severity: 'error', from: { path: from }, to: { path: to } });

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    { name: 'no-orphan-imports', severity: 'error', from: {}, to: { couldNotResolve: true } },
    ...coreOrder,
    {
      name: 'core-public-face',
      severity: 'error',
      comment: 'other core folders are reached through their index.ts',
      from: { path: '^src/core/([^/]+)/' },
      to: { path: '^src/core/([^/]+)/', pathNot: ['^src/core/$1/', '^src/core/[^/]+/index\\.ts$'] },
    },
    {
      name: 'outside-to-core-face',
      severity: 'error',
      from: { path: '^src/(app|ui|workers|server|db|cli)/' },
      to: { path: '^src/core/', pathNot: '^src/core/[^/]+/index\\.ts$' },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^src/core/', pathNot: ['\\.test\\.ts$', '^src/core/parting/(rays|rough-face)\\.ts$'] },
      to: { pathNot: ['^src/core/', '^node_modules/(zod|ml-matrix|ml-levenberg-marquardt)/'] },
    },
    {
      name: 'rays-through-a-tree',
      severity: 'error',
      comment: 'three is large: one file takes its vectors, for the tree of triangles, and only long work reaches it',
      from: { path: '^src/core/parting/rays\\.ts$' },
      to: { pathNot: ['^src/core/', '^node_modules/(three|three-mesh-bvh|@types/three)/'] },
    },
    {
      name: 'rough-faces-are-simplified',
      severity: 'error',
      comment: 'one file takes what makes a face rough, which is ready only some time after it is read',
      from: { path: '^src/core/parting/rough-face\\.ts$' },
      to: { pathNot: ['^src/core/', '^node_modules/meshoptimizer/'] },
    },
    {
      name: 'parting-in-long-work-only',
      severity: 'error',
      from: { path: '^src/(app|ui|server)/' },
      to: { path: '^src/core/parting/', dependencyTypesNot: ['type-only'] },
    },
    between('^src/ui/', '^src/(db|server|app|cli)/', 'ui-knows-no-server'),
    between('^src/workers/', '^src/(db|server|app|ui|cli)/', 'workers-know-core-only'),
    between('^src/db/', '^src/(server|app|ui|workers|cli)/', 'db-is-below-server'),
    between('^src/server/', '^src/(app|ui|workers|cli)/', 'server-is-below-app'),
    between('^src/(app|cli)/', '^src/db/', 'app-goes-through-server'),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.scss$|\\.css$' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
