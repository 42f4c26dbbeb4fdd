// Dependencies point downwards only:
// { quantity, memo, collections } <- sheets <- plan <- nets <- { assign, electrics, displays, faces } <- checks <- review <- outputs/bench <- { server, web, cli }
const ORDER = [
  'quantity|memo|collections',
  'sheets',
  'plan',
  'nets',
  'assign|electrics|displays|faces',
  'checks',
  'review',
  'outputs|bench',
];
// The four floors of the web: { workers <- state } <- ui <- views <- app. Types count: what a floor names, it depends on.
const FLOORS = ['workers', 'state', 'ui', 'views', 'app'];

const upwards = ORDER.map((layer, at) => ({
  name: `core-${layer.replaceAll('|', '-')}-points-down`,
  severity: 'error',
  from: { path: `^packages/core/src/(${layer})/`, pathNot: '\\.test\\.ts$' },
  to: { path: `^packages/core/src/(${ORDER.slice(at + 1).join('|') || 'none'})/` },
}));

const floors = FLOORS.map((floor, at) => ({
  name: `web-${floor}-points-down`,
  severity: 'error',
  from: { path: `^packages/web/src/${floor}/`, pathNot: '\\.test\\.tsx?$' },
  to: { path: `^packages/web/src/(${FLOORS.slice(at + 1).join('|') || 'none'})/` },
}));

module.exports = {
  forbidden: [
    ...upwards,
    ...floors,
    {
      name: 'views-know-no-other-view',
      severity: 'error',
      from: { path: '^packages/web/src/views/([^/]+)/' },
      to: { path: '^packages/web/src/views/', pathNot: '^packages/web/src/views/$1/' },
    },
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
    {
      name: 'core-knows-no-face',
      severity: 'error',
      from: { path: '^packages/core/src' },
      to: { path: '^packages/(api|server|web|cli|catalogue)/' },
    },
    {
      name: 'api-knows-the-core-alone',
      severity: 'error',
      from: { path: '^packages/api/' },
      to: { path: '^packages/(server|web|cli|catalogue)/' },
    },
    { name: 'web-and-server-apart', severity: 'error', from: { path: '^packages/web/' }, to: { path: '^packages/(server|cli)/' } },
    { name: 'server-knows-no-web', severity: 'error', from: { path: '^packages/server/' }, to: { path: '^packages/(web|cli)/' } },
    { name: 'cli-stands-alone', severity: 'error', from: { path: '^packages/cli/' }, to: { path: '^packages/(web|server)/' } },
    { name: 'unresolved', severity: 'error', from: {}, to: { couldNotResolve: true } },
    {
      name: 'core-uses-few-packages',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'], pathNot: 'node_modules/(joi|papaparse|yaml|smol-toml)/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|dist-dev|node_modules/\\.vite)/' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.cjs', '.json'],
      exportsFields: ['exports'],
      conditionNames: ['node', 'import', 'require', 'default'],
    },
  },
};
