// npm run check: types, lint and formatting. Types and formatting of what has not changed are not looked at again.
import { checkNode, ensureNodePackages, run } from './machine.mjs';

checkNode();
ensureNodePackages();
const npx = (what, ...args) => run('npx', ['--no-install', ...args], what);
npx('svelte-kit sync', 'svelte-kit', 'sync');
npx('Checking types', 'svelte-check', '--tsconfig', './tsconfig.json', '--incremental');
npx('Linting', 'eslint', '.');
npx('Checking the formatting', 'prettier', '--check', '.', '--cache');
