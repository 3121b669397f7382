import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import tseslint from 'typescript-eslint';
import importX from 'eslint-plugin-import-x';
import reactHooks from 'eslint-plugin-react-hooks';
import { roomZones } from './eslint.rooms.mjs';

/** What each layer may import, from docs/architecture.md. */
const zones = [
  { target: './core', from: ['./server', './features', './app', './workers'] },
  { target: './workers', from: ['./server', './features', './app'] },
  { target: './server', from: ['./features', './app', './workers'] },
  { target: './features', from: ['./server', './app'] },
].flatMap(({ target, from }) =>
  from.map((folder) => ({
    target,
    from: folder,
    message: 'The layers in docs/architecture.md do not allow this import.',
  })),
);

/** A schema says what a mark is; it must not bring along how one is painted. */
const schemaZones = [
  './core/marks/*/schema.ts',
  './core/marks/{names,base}.ts',
  './core/marks/shared/shapes.ts',
].map((target) => ({
  target,
  from: [
    './core/drawing/!(names).ts',
    './core/marks/{contract,kinds,registry,style}.ts',
    './core/marks/!(shared)/!(schema|names).ts',
    './core/marks/shared/!(shapes).ts',
    './core/paint/**',
  ],
  message: 'The schema of a kind stands apart from what paints it.',
}));

/** The only packages that core may use: they compute and touch nothing outside. */
const corePackages = [
  'fast-png',
  'zod',
  'fast-equals',
  'immer',
  'mdast',
  'mdast-util-from-markdown',
  'mdast-util-to-markdown',
  'simplify-js',
  'd3-polygon',
  'bidi-js',
  'linebreak',
];

export default tseslint.config(
  { ignores: ['node_modules', '.next', '.next-*', '.data', 'public', 'next-env.d.ts'] },
  ...tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: {
      parserOptions: { project: './tsconfig.json', tsconfigRootDir: import.meta.dirname },
    },
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [createTypeScriptImportResolver({ project: './tsconfig.json' })],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
    },
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/no-misused-promises': [
        'error',
        { checksVoidReturn: { attributes: false } },
      ],
      'import-x/no-restricted-paths': [
        'error',
        {
          zones: [...zones, ...schemaZones, ...roomZones(import.meta.dirname)],
          basePath: import.meta.dirname,
        },
      ],
      'import-x/no-cycle': ['error', { ignoreExternal: true }],
      eqeqeq: 'error',
    },
  },
  {
    // Tests stand above all layers: they ask routes, paint and drive whatever they hold to account.
    files: ['**/*.test.ts', '**/tests/**'],
    rules: { 'import-x/no-restricted-paths': 'off', 'import-x/no-cycle': 'off' },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: `^(?!(${corePackages.join('|')})$)(?!\\.{1,2}/)(?!@/core/).+`,
              message: 'core imports itself and pure packages only; pass the rest in.',
              allowTypeImports: true,
            },
          ],
        },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: 'NewExpression[callee.name="Date"][arguments.length=0]',
          message: 'core has no clock: pass the time in.',
        },
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'core has no clock: pass the time in.' },
        { object: 'Math', property: 'random', message: 'core has no randomness: pass a seed in.' },
        { object: 'performance', property: 'now', message: 'core has no clock: pass the time in.' },
      ],
    },
  },
  { files: ['**/*.tsx', 'features/**/*.ts'], ...reactHooks.configs.flat.recommended },
  {
    files: ['features/**/*.{ts,tsx}'],
    rules: {
      // Both speak for the React Compiler, which this project does not use.
      'react-hooks/set-state-in-effect': 'off',
      'react-hooks/incompatible-library': 'off',
    },
  },
  {
    files: ['**/*.mjs', '**/*.cjs'],
    ...tseslint.configs.disableTypeChecked,
  },
);
