/** The one-way rules: web, server, cli and demo use core; inside core the lower never knows the higher. */

/** Core's folders from the lowest up; each may use itself and those before it. */
const CORE_LAYERS = [
  'math',
  'document',
  'path',
  'reshape',
  'pace',
  'timing',
  'facing',
  'solid',
  'contact',
  'pose',
  'ride',
  'laid',
  'hierarchy',
  'wheels',
  'gait',
  'spray',
  'forces',
  'evaluate',
  'arrange',
  'loop',
  'bake',
  'check',
  'pictures',
  'formats',
];

const core = 'packages/core/src';

const upward = CORE_LAYERS.map((layer, i) => ({
  name: `core-${layer}-knows-only-what-is-below`,
  severity: 'error',
  from: { path: `^${core}/${layer}/`, pathNot: '\\.test\\.ts$' },
  to: { path: `^${core}/(${CORE_LAYERS.slice(i + 1).join('|') || 'none'})/` },
}));

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    ...upward,
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: `^${core}/`, pathNot: '\\.test\\.ts$' },
      to: { path: 'packages/(web|server|cli)/|node_modules/(react|@nestjs|typeorm)/' },
    },
    {
      name: 'three-is-for-trees-of-triangles-and-foreign-meshes',
      severity: 'error',
      from: { path: `^${core}/`, pathNot: `\\.test\\.ts$|^${core}/(check|formats/intake)/` },
      to: { path: 'node_modules/(three|three-mesh-bvh)/' },
    },
    {
      name: 'one-file-knows-how-bodies-move',
      severity: 'error',
      from: { path: '^packages/', pathNot: `^${core}/forces/rapier-physics` },
      to: { path: 'node_modules/@dimforge/' },
    },
    {
      name: 'packages-meet-only-in-core',
      severity: 'error',
      from: { path: '^packages/(web|server|cli)/' },
      to: { path: '^packages/(web|server|cli)/', pathNot: '^packages/$1/' },
    },
    {
      name: 'one-step-does-not-reach-into-another',
      severity: 'error',
      from: { path: '^packages/web/src/desk/(attach|facing|contact|pace|check|hand-over)/' },
      to: {
        path: '^packages/web/src/desk/(path|attach|facing|contact|pace|check|hand-over)/',
        pathNot: '^packages/web/src/desk/$1/',
      },
    },
    {
      name: 'no-unlisted-packages',
      severity: 'error',
      from: {},
      to: { dependencyTypes: ['npm-no-pkg', 'npm-unknown'] },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
      exportsFields: ['exports'],
      conditionNames: ['import', 'default', 'types'],
    },
  },
};
