import tseslint from 'typescript-eslint';
import next from 'eslint-config-next/core-web-vitals';

/** The plugins that come with Next's own rules: of accessibility and of hooks all that they recommend holds. */
const plugins = Object.assign({}, ...next.map((c) => c.plugins ?? {}));
const asErrors = (rules) => Object.fromEntries(Object.keys(rules).map((name) => [name, 'error']));

/** Names of the core's folders by tier: a folder imports only from lower tiers. The test in core/tiers.test.ts holds the same table. */
const noWebServer = ['**/data/**', '@/data/**', '**/usecases/**', '@/usecases/**'];

export default tseslint.config(
  {
    ignores: [
      '.next/',
      '.lantern/',
      'node_modules/',
      'next-env.d.ts',
      'test-results/',
      'playwright-report/',
      'public/',
    ],
  },
  ...next,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      'max-lines': ['error', { max: 300, skipBlankLines: true, skipComments: true }],
      'no-console': 'error',
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['src/core/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { regex: '^[^.]', message: 'The core imports nothing from outside itself.' },
            { regex: '^(\\.\\./){2,}', message: 'The core does not reach out of itself.' },
            { regex: '^\\.\\./[^/]+/.+', message: 'Import a sibling folder through its index.' },
          ],
        },
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'The random source is an argument.' },
        { object: 'Date', property: 'now', message: 'The clock is an argument.' },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'The clock is an argument.' },
      ],
    },
  },
  {
    files: ['src/features/**', 'src/ui/**', 'src/workers/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: noWebServer, message: 'Pages hand features their data.' }] },
      ],
    },
  },
  {
    files: ['src/usecases/**', 'src/app/**', 'src/demo/**', 'src/cli/**'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: "CallExpression[callee.property.name='query']", message: 'Every SQL text stands in data/.' },
      ],
    },
  },
  {
    files: ['bench/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: ['@/cli/**', '**/cli/**'], message: 'The command line imports the bench.' }] },
      ],
    },
  },
  {
    files: ['src/wire/**', 'src/data/**', 'src/usecases/**', 'src/workers/**'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['@/features/**', '@/app/**', '@/cli/**', '@/ui/**', '@/demo/**'],
              message: 'Rooms below the screens import none of them.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['src/ui/**'],
    rules: {
      'no-restricted-imports': ['error', { patterns: [{ regex: '^@/', message: 'ui/ imports nothing of ours.' }] }],
    },
  },
  {
    files: ['**/*.tsx'],
    rules: {
      ...plugins['jsx-a11y'].flatConfigs.recommended.rules,
      // Our widgets take it for the next thing to do, which is lit and focused.
      'jsx-a11y/no-autofocus': ['error', { ignoreNonDOM: true }],
      // Photographs come from the workshop's own server, as they are.
      '@next/next/no-img-element': 'off',
    },
  },
  {
    files: ['**/*.tsx', 'src/features/**/*.ts', 'src/ui/**/*.ts'],
    rules: asErrors(plugins['react-hooks'].configs.flat.recommended.rules),
  },
  { files: ['*.config.mjs'], rules: { 'import/no-anonymous-default-export': 'off' } },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  { files: ['src/cli/**', 'bench/**', 'scripts/**', 'launcher/**'], rules: { 'no-console': 'off' } },
  {
    files: ['**/*.test.ts', 'e2e/**', 'src/demo/**', '**/*Table.ts', 'src/core/diagnose/faultModes.ts'],
    rules: { 'max-lines': 'off' },
  },
);
