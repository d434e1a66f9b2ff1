/** The one-way rules: web, server, cli and demo use core; inside core the lower never knows the higher. */

/** Core's rooms from the lowest up, each with its folders from the lowest up; each may use itself and those before it. */
const CORE_ROOMS = {
  document: [],
  geometry: ['math', 'path', 'reshape', 'solid', 'ground'],
  motion: ['pace', 'timing', 'pose', 'ride'],
  vehicle: ['facing', 'wheels'],
  character: ['hierarchy', 'gait'],
  effects: ['dressing', 'spray', 'forces'],
  shot: ['evaluate', 'edits', 'loop', 'bake'],
  check: [],
  pictures: [],
  formats: [],
};

const core = 'packages/core/src';
const web = 'packages/web/src';

/** Folders of the page from the lowest up; only `desk.tsx` is above them all. */
const WEB_ROOMS = [
  'ui',
  'api',
  'edits',
  'workers/(evaluation|checks|operations|scene-assets)',
  'state',
  'commands',
  'app/saving',
  'viewport',
  'timeline',
  'workers/pictures',
  'steps',
  'app/(?!saving)[^/]+',
];

/** Forbids each folder of a list to use those after it. */
const upward = (place, folders) =>
  folders.slice(0, -1).map((folder, i) => ({
    name: `${folder}-knows-only-what-is-below`,
    severity: 'error',
    from: { path: `^${place}/${folder}/`, pathNot: '\\.test\\.ts$' },
    to: { path: `^${place}/(${folders.slice(i + 1).join('|')})/` },
  }));

const rooms = [
  ...upward(web, WEB_ROOMS),
  ...upward(core, Object.keys(CORE_ROOMS)),
  ...Object.entries(CORE_ROOMS).flatMap(([room, folders]) => upward(`${core}/${room}`, folders)),
];

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    ...rooms,
    {
      name: 'a-face-is-for-other-packages',
      severity: 'error',
      from: { path: `^${core}/`, pathNot: `^${core}/(index|shots)\\.ts$` },
      to: { path: `^${core}/[^/]+/index\\.ts$` },
    },
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
      from: { path: '^packages/', pathNot: `^${core}/effects/forces/rapier-physics` },
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
      from: { path: `^${web}/steps/(?!shared)([^/]+)/` },
      to: { path: `^${web}/steps/(?!shared)`, pathNot: `^${web}/steps/$1/` },
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
