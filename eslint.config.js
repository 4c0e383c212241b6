import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import boundaries from 'eslint-plugin-boundaries';
import vue from 'eslint-plugin-vue';
import globals from 'globals';
import ts from 'typescript-eslint';
import vueParser from 'vue-eslint-parser';
import { lintParser } from './scripts/lint-parser.js';

const room = (type, pattern) => ({ type, pattern });

/** The folders of core in dependency order: each imports only from those before it. */
const CORE_ORDER = [
  'result',
  'math',
  'units',
  'fits',
  'expressions',
  'records',
  'naming',
  'solver',
  'sketch',
  'geometry',
  'kernel-port',
  'references',
  'meshes',
  'samples',
  'steps',
  'cutting',
  'contact',
  'assembly',
  'study',
  'hidden-lines',
  'drawing',
  'document',
  'formats',
  'outlines',
  'sheet-files',
  'demo',
  'wording',
];
const coreRules = CORE_ORDER.map((folder, k) => ({
  from: { element: { type: `core-${folder}` } },
  allow: { to: { element: { type: CORE_ORDER.slice(0, k + 1).map((name) => `core-${name}`) } } },
}));
const CORE = CORE_ORDER.map((name) => `core-${name}`);
const allow = (from, to) => ({ from: { element: { type: from } }, allow: { to: { element: { type: to } } } });

/** Libraries that core must not know: it is pure. */
const IMPURE = ['vue', 'three', 'koa', 'sequelize', 'node:*', 'replicad-opencascadejs', '@helb/*'];

export default ts.config(
  { ignores: ['**/dist/**', 'node_modules/**', '.data/**', 'test-results/**'] },
  js.configs.recommended,
  ...ts.configs.recommendedTypeChecked,
  ...vue.configs['flat/recommended'],
  {
    languageOptions: {
      parser: vueParser,
      parserOptions: {
        parser: lintParser,
        projectService: {
          allowDefaultProject: ['*.js', 'apps/web/test/*.js', 'apps/web/vite.config.ts', 'playwright.config.ts'],
        },
        extraFileExtensions: ['.vue'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    plugins: { boundaries },
    settings: {
      'import/resolver': { typescript: { alwaysTryTypes: true } },
      'boundaries/elements': [
        ...CORE_ORDER.map((name) => room(`core-${name}`, `packages/core/src/${name}`)),
        room('core', 'packages/core'),
        room('kernel', 'packages/kernel'),
        room('engine', 'packages/engine'),
        room('server', 'apps/server'),
        room('web', 'apps/web'),
        room('e2e', 'e2e'),
        room('bench', 'bench'),
        room('fuzz', 'fuzz'),
        room('scripts', 'scripts'),
      ],
    },
    rules: {
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: [
            ...coreRules,
            allow('core', CORE),
            // outlines of samples are for tests and benches
            allow('kernel', ['kernel', 'core', 'core-samples']),
            // the headless command line is where engine and kernel are put together
            allow('engine', [
              'engine',
              'core',
              'core-assembly',
              'core-outlines',
              'core-samples',
              'core-sheet-files',
              'core-study',
              'kernel',
            ]),
            allow('server', ['server', 'core', 'scripts']),
            // the readers of files are loaded when somebody opens one
            allow('web', [
              'web',
              'engine',
              'core',
              'core-assembly',
              'core-outlines',
              'core-sheet-files',
              'core-study',
              'kernel',
            ]),
            allow('e2e', ['e2e', 'core', 'core-assembly', 'core-samples', 'scripts']),
            allow('bench', [
              'bench',
              'core',
              'core-assembly',
              'core-outlines',
              'core-samples',
              'core-study',
              'kernel',
              'engine',
              'fuzz',
              'scripts',
              'e2e',
              'server',
            ]),
            allow('fuzz', ['fuzz', 'core', 'core-assembly', 'core-samples', 'kernel', 'engine']),
            allow('scripts', ['engine', 'kernel', 'scripts', 'core', 'server']),
          ],
        },
      ],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/restrict-template-expressions': 'off',
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/unbound-method': 'off',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
      'vue/multi-word-component-names': 'off',
      'max-lines': ['error', { max: 420, skipBlankLines: true }],
    },
  },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: IMPURE }],
      'no-restricted-globals': ['error', 'Date', 'performance', 'process', 'window', 'document'],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random' }],
    },
  },
  {
    files: ['packages/kernel/**/*.ts', 'packages/engine/**/*.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: ['vue', 'three', 'koa', 'sequelize'] }] },
  },
  {
    // the order of core's folders is for the code; a test may look at the whole
    files: ['packages/core/src/**/*.test.ts', 'packages/core/src/**/test-*.ts'],
    rules: { 'boundaries/dependencies': 'off' },
  },
  {
    // types of .vue files are not seen here; vue-tsc checks them
    files: ['apps/web/**/*.{ts,vue}'],
    languageOptions: { globals: globals.browser },
    rules: {
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/no-redundant-type-constituents': 'off',
    },
  },
  {
    files: ['**/*.js'],
    ...ts.configs.disableTypeChecked,
    languageOptions: { ...ts.configs.disableTypeChecked.languageOptions, globals: globals.node },
  },
  {
    files: ['**/*.test.ts', 'e2e/**/*.ts', 'apps/server/test/**/*.ts'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/require-await': 'off',
      'no-empty-pattern': 'off',
    },
  },
  prettier,
  {
    rules: {
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
    },
  },
);
