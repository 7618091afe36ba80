import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import reactHooks from 'eslint-plugin-react-hooks';
import { longStill } from './eslint.longStill.js';
import globals from 'globals';
import { defineConfig, globalIgnores } from 'eslint/config';
import tseslint from 'typescript-eslint';

const lines = (max) => ['error', { max, skipBlankLines: true, skipComments: true }];
const tests = ['**/*.test.ts', '**/*.test.tsx', '**/testing/**'];

export default defineConfig(
  globalIgnores(['**/dist/', '.cache/', '**/coverage/', '**/node_modules/', '.data/', 'demo/', '**/test-results/']),
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [tseslint.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
      '@typescript-eslint/no-misused-promises': [
        'error',
        { checksVoidReturn: { attributes: false, arguments: false } },
      ],
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['**/*.test.{ts,tsx}', '**/testing/**', 'e2e/**', 'bench/**', 'oracle/**', 'endurance/**'],
    extends: [tseslint.configs.disableTypeChecked],
  },
  // a function fits a screen; a service and a view, which are one function around many, are given more
  {
    files: ['packages/*/src/**/*.{ts,tsx}'],
    ignores: [...tests, ...longStill.files],
    rules: { 'max-lines': lines(280) },
  },
  {
    files: ['packages/{core,contract,cli}/src/**/*.ts'],
    ignores: [...tests, ...longStill.functions],
    rules: { 'max-lines-per-function': lines(60) },
  },
  {
    files: ['packages/server/src/**/*.ts'],
    ignores: [...tests, ...longStill.functions],
    rules: { 'max-lines-per-function': lines(100) },
  },
  {
    files: ['packages/web/src/**/*.{ts,tsx}'],
    ignores: [...tests, ...longStill.functions],
    rules: { 'max-lines-per-function': lines(150) },
  },
  { files: longStill.files, rules: { 'max-lines': 'off' } },
  {
    files: ['packages/web/**/*.{ts,tsx}'],
    extends: [reactHooks.configs.flat.recommended, jsxA11y.flatConfigs.strict],
    languageOptions: { globals: globals.browser },
    settings: {
      'jsx-a11y': { components: { Act: 'button', Button: 'button', Field: 'input', SelectField: 'select' } },
    },
    rules: {
      'react-hooks/incompatible-library': 'off',
      // fields that come up because a person asked for them take the focus
      'jsx-a11y/no-autofocus': 'off',
    },
  },
  { files: ['**/*.{mjs,cjs,js}'], languageOptions: { globals: { ...globals.node, ...globals.browser } } },
  prettier,
);
