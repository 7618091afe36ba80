/** Imports go downwards only. docs/architecture.md says why. */
const floors = [
  'source',
  'values',
  ['page', 'sheet'],
  'selectors',
  'cascade',
  ['survey', 'checks'],
  'precedence',
  'writing',
  'proof',
  'operations',
  'plan',
  'handoff',
];
const floorRules = floors.slice(0, -1).map((floor, i) => ({
  name: `core-floor-${i}`,
  severity: 'error',
  comment: 'a folder of core imports only from floors below it',
  from: { path: `^packages/core/src/(${[floor].flat().join('|')})/`, pathNot: '[.]test[.]ts$' },
  to: {
    path: `^packages/core/src/(${floors
      .slice(i + 1)
      .flat()
      .join('|')})/`,
  },
}));

module.exports = {
  forbidden: [
    ...floorRules,
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    // sarif is there as types only
    { name: 'resolves', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '^sarif$' } },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^packages/core/src/', pathNot: '([.]test[.]ts$|/testing/)' },
      to: {
        pathNot: [
          '^packages/core/src/',
          'node_modules/(css-tree|@types/css-tree|culori|@types/culori|parse5|entities|fastest-levenshtein|acorn|@noble/hashes|@sinclair/typebox|html-validate|diff|bidi-js)/',
        ],
      },
    },
    {
      name: 'contract-is-thin',
      severity: 'error',
      from: { path: '^packages/contract/src/', pathNot: '([.]test[.]ts$|/testing/)' },
      to: { pathNot: ['^packages/(contract|core)/src/', 'node_modules/@sinclair/typebox/'] },
    },
    {
      name: 'meet-only-below',
      severity: 'error',
      from: { path: '^packages/(server|web|cli)/' },
      to: { path: '^packages/(server|web|cli)/', pathNot: '^packages/$1/' },
    },
    {
      name: 'feature-through-its-door',
      severity: 'error',
      from: { path: '^packages/(server|web)/src/features/([^/]+)/', pathNot: '[.]test[.]tsx?$' },
      to: {
        path: '^packages/(server|web)/src/features/([^/]+)/',
        pathNot: ['^packages/$1/src/features/$2/', '/index[.]ts$'],
      },
    },
    {
      name: 'radix-only-in-ui',
      severity: 'error',
      from: { path: '^packages/web/src/', pathNot: '^packages/web/src/ui/' },
      to: { path: 'node_modules/(radix-ui|@radix-ui)/' },
    },
    {
      name: 'stores-know-no-features',
      severity: 'error',
      comment: 'what is kept knows neither features nor the analysis',
      from: { path: '^packages/server/src/(stores|db)/', pathNot: '[.]test[.]ts$' },
      to: { path: '^packages/server/src/(features|analysis)/' },
    },
    {
      name: 'ui-knows-no-feature',
      severity: 'error',
      from: { path: '^packages/web/src/ui/' },
      to: { path: '^packages/web/src/(features|app)/|node_modules/(react-redux|@reduxjs)' },
    },
    {
      name: 'views-take-props',
      severity: 'error',
      from: { path: '^packages/web/src/.*View[.]tsx$' },
      to: { path: '^packages/web/src/app/|node_modules/(react-redux|@reduxjs)' },
    },
    {
      name: 'sequelize-stays-below',
      severity: 'error',
      from: {
        path: '^packages/server/src/',
        pathNot: '(/db/|/stores/|[.]test[.]ts$|/testing/)',
      },
      to: { path: 'node_modules/(sequelize|pg|umzug)/', dependencyTypesNot: ['type-only'] },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    // our own builds only: packages of others ship their code in folders of that name
    exclude: { path: '^packages/[^/]+/dist/' },
    tsConfig: { fileName: 'tsconfig.test.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['@syndeton/source', 'import', 'node', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.json', '.css'],
    },
  },
};
