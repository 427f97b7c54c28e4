import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
  { ignores: ['node_modules/', 'src/lib/*.gen.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  prettier,
  ...svelte.configs.prettier,
  { rules: { '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_$' }] } },
  { languageOptions: { globals: { ...globals.browser, ...globals.node } } },
  { files: ['public/field-worker.js'], languageOptions: { globals: globals.serviceworker } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } },
    rules: { 'svelte/no-navigation-without-resolve': 'off' },
  },
);
