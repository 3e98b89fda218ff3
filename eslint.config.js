import hooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

const ROOMS =
  'access|api|campaigns|checks|codes|conditions|config|contracts|database|desk|domains|door|formats|jobs|line|log|office|processes|phone|plan|reach|reader|results|routing|scans|session|settings|sqlite|standins|threads|symbol|pages|tagging|time|formats|ui|app|visitTags|workspace'

/** Other rooms are entered by their door. */
const behindTheDoor = {
  regex: `^\\.\\./(${ROOMS})/(?!(index|queries)\\.ts$)`,
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

export default tseslint.config(
  { ignores: ['**/dist/', '**/node_modules/', 'data/', 'e2e/output/'] },
  ...tseslint.configs.recommendedTypeChecked.map((config) => ({ ...config, files: ['**/*.ts', '**/*.tsx'] })),
  {
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: {
      parserOptions: {
        project: ['./tsconfig.json'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
      eqeqeq: 'error',
      'no-nested-ternary': 'error',
      'max-statements-per-line': ['error', { max: 1 }],
      ...restrict(),
    },
  },
  {
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'URL', property: 'canParse', message: 'It errs on this Node.js: use readUrl.' },
      ],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      ...restrict(
        only(
          'node:',
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
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: 'core has no randomness: take it as an argument.',
        },
        {
          selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
          message: 'core has no clock: take the time as an argument.',
        },
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'core has no clock: take the time as an argument.',
        },
      ],
    },
  },
  { files: ['server/**/*.ts'], rules: restrict(only('react', '@mui', '@flimbo/web', '@flimbo/demo')) },
  { files: ['web/**/*.ts', 'web/**/*.tsx'], ignores: ['web/vite.config.ts'], rules: notNode },
  {
    files: ['web/**/*.ts', 'web/**/*.tsx'],
    plugins: { 'react-hooks': hooks },
    rules: {
      ...restrict(only('node:', 'express', 'typeorm', 'better-sqlite3', '@flimbo/server', '@flimbo/demo')),
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
    },
  },
)
