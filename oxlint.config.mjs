// What every file keeps to, and the borders of rooms and layers. Types are known to it, and checked as the compiler does: run with --type-aware --type-check.
const ROOMS =
  'access api app campaigns checks codes conditions config contents contracts database desk domains door figures files formats houseStyles jobs line log office pages phone plan print processes reach reader results routing scans session settings sqlite standins staticCodes symbol tagging threads time ui visitTags workspace'

/** Other rooms are entered by their door. */
const behindTheDoor = {
  group: [
    ...ROOMS.split(' ').map((room) => `../${room}/**`),
    ...['index.ts', 'queries.ts'].map((door) => `!../*/${door}`),
  ],
  message: 'Import another room by its index.ts only; a thread that reads for several, by their queries.ts.',
}
const deepPackage = { regex: '^@flimbo/(core|server)/[^/]+/.+', message: 'Import a room by its door only.' }
const only = (...names) => ({
  regex: `^(${names.join('|')})(/|$)`,
  message: 'This layer may not reach that far.',
})
const restrict = (...patterns) => ({
  'no-restricted-imports': ['error', { patterns: [behindTheDoor, deepPackage, ...patterns] }],
})

/** One program checks the types of all layers, so that those of Node.js are known everywhere: these are not used there. */
const notNode = {
  'no-restricted-globals': ['error', 'process', 'Buffer', 'global', 'require', '__dirname', '__filename'],
}
const urlErrs = {
  object: 'URL',
  property: 'canParse',
  message: 'It errs on this Node.js: use readUrl.',
}

/** What is outright wrong in the language, and what TypeScript sees but does not refuse. */
const LANGUAGE = [
  'eqeqeq',
  'no-nested-ternary',
  'no-unused-expressions',
  'no-var',
  'prefer-const',
  'prefer-rest-params',
  'prefer-spread',
]
const TYPESCRIPT = [
  'await-thenable',
  'ban-ts-comment',
  'no-array-delete',
  'no-base-to-string',
  'no-duplicate-enum-values',
  'no-duplicate-type-constituents',
  'no-empty-object-type',
  'no-explicit-any',
  'no-extra-non-null-assertion',
  'no-floating-promises',
  'no-for-in-array',
  'no-implied-eval',
  'no-misused-new',
  'no-misused-promises',
  'no-namespace',
  'no-non-null-asserted-optional-chain',
  'no-non-null-assertion',
  'no-redundant-type-constituents',
  'no-require-imports',
  'no-this-alias',
  'no-unnecessary-type-assertion',
  'no-unnecessary-type-constraint',
  'no-unsafe-argument',
  'no-unsafe-assignment',
  'no-unsafe-call',
  'no-unsafe-declaration-merging',
  'no-unsafe-enum-comparison',
  'no-unsafe-function-type',
  'no-unsafe-member-access',
  'no-unsafe-return',
  'no-unsafe-unary-minus',
  'no-wrapper-object-types',
  'only-throw-error',
  'prefer-as-const',
  'prefer-promise-reject-errors',
  'require-await',
  'restrict-plus-operands',
  'restrict-template-expressions',
  'switch-exhaustiveness-check',
  'triple-slash-reference',
  'unbound-method',
]

export default {
  plugins: ['typescript', 'react'],
  jsPlugins: ['./scripts/steps/lintPure.mjs'],
  categories: { correctness: 'off' },
  ignorePatterns: ['**/dist/', '**/node_modules/', 'data/', 'e2e/output/'],
  rules: { 'no-restricted-properties': ['error', urlErrs] },
  overrides: [
    {
      files: ['**/*.ts', '**/*.tsx'],
      rules: {
        ...Object.fromEntries(LANGUAGE.map((rule) => [rule, 'error'])),
        ...Object.fromEntries(TYPESCRIPT.map((rule) => [`typescript/${rule}`, 'error'])),
        'no-array-constructor': 'error',
        'typescript/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
        'no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
        ...restrict(),
      },
    },
    {
      files: ['core/**/*.ts'],
      excludeFiles: ['**/*.test.ts'],
      rules: {
        ...restrict(
          only(
            'node:.+',
            'react',
            '@mui',
            'express',
            'typeorm',
            'better-sqlite3',
            '@flimbo/server',
            '@flimbo/web',
          ),
        ),
        ...notNode,
        'no-restricted-properties': [
          'error',
          urlErrs,
          {
            object: 'Math',
            property: 'random',
            message: 'core has no randomness: take it as an argument.',
          },
          { object: 'Date', property: 'now', message: 'core has no clock: take the time as an argument.' },
        ],
        'pure/no-clock': 'error',
      },
    },
    { files: ['server/**/*.ts'], rules: restrict(only('react', '@mui', '@flimbo/web', '@flimbo/demo')) },
    { files: ['web/**/*.ts', 'web/**/*.tsx'], excludeFiles: ['web/vite.config.ts'], rules: notNode },
    {
      files: ['web/**/*.ts', 'web/**/*.tsx'],
      rules: {
        ...restrict(
          only('node:.+', 'express', 'typeorm', 'better-sqlite3', '@flimbo/server', '@flimbo/demo'),
        ),
        'react/rules-of-hooks': 'error',
        'react/exhaustive-deps': 'error',
      },
    },
  ],
}
