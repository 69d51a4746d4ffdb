#!/usr/bin/env node
// The command line runs the TypeScript sources as they are: nothing has to be built first.
import { register } from 'tsx/esm/api';

register();
const { main } = await import('./main.ts');
process.exitCode = await main(process.argv.slice(2));
