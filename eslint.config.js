import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

/** Imports go one way: routes, ui, cli, server, workbench, workers → formats → core. */
const noImport = (...groups) => ({
	'no-restricted-imports': [
		'error',
		{
			patterns: [
				{
					group: groups,
					message: 'Imports go one way: everything → formats → core (docs in README, “Where things are”).'
				}
			]
		}
	]
});

export default ts.config(
	{ ignores: ['node_modules/', 'build/', '.svelte-kit/', '.heptarch/', 'docs/'] },
	js.configs.recommended,
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{
		languageOptions: { globals: { ...globals.browser, ...globals.node } },
		rules: {
			'@typescript-eslint/no-explicit-any': 'error',
			'@typescript-eslint/no-unused-vars': [
				'error',
				{ argsIgnorePattern: '^_', varsIgnorePattern: '^_', caughtErrors: 'none', ignoreRestSiblings: true }
			],
			'no-undef': 'off',
			'@typescript-eslint/no-this-alias': 'off'
		}
	},
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: { parserOptions: { extraFileExtensions: ['.svelte'], parser: ts.parser, svelteConfig } },
		rules: {
			'svelte/no-navigation-without-resolve': 'off',
			'svelte/require-each-key': 'error',
			// Maps and sets are made anew and never changed afterwards, so there is nothing to react to in them.
			'svelte/prefer-svelte-reactivity': 'off'
		}
	},
	{
		files: ['src/lib/core/**'],
		rules: noImport(
			'**/formats/**',
			'**/server/**',
			'**/ui/**',
			'**/workbench/**',
			'**/workers/**',
			'$lib/**',
			'node:*',
			'**/cli/**',
			'svelte',
			'svelte/*',
			'$app/*',
			'kysely',
			'pg'
		)
	},
	{
		files: ['src/lib/formats/**'],
		rules: noImport(
			'**/server/**',
			'**/ui/**',
			'**/workbench/**',
			'**/workers/**',
			'$lib/**',
			'node:*',
			'**/cli/**',
			'svelte',
			'svelte/*',
			'$app/*',
			'kysely',
			'pg'
		)
	},
	{
		files: ['src/lib/workbench/**'],
		rules: noImport('**/server/**', '**/ui/**', '**/cli/**', 'node:*', 'svelte', '$app/*')
	},
	{ files: ['src/cli/**'], rules: noImport('**/server/**', '**/ui/**', 'svelte', '$app/*') }
);
