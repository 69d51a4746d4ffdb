import { writeFileSync } from 'node:fs';
import openapiTS, { astToString } from 'openapi-typescript';
import { format, resolveConfig } from 'prettier';
import { openApi } from '../src/lib/server/api/openapi.ts';

/**
 * The types of a client of the door for programs, as a common generator makes them of the description that is served.
 * `node --import tsx scripts/api-types.ts FILE` writes them.
 */
export async function clientTypes(): Promise<string> {
	const source = astToString(await openapiTS(JSON.parse(JSON.stringify(openApi()))));
	const head = '/** Made by scripts/api-types.ts from /api/v1/openapi.json; not written by hand. */\n';
	return format(head + source, { ...(await resolveConfig(import.meta.filename)), parser: 'typescript' });
}

const [, program, file] = process.argv;
if (program?.endsWith('api-types.ts') && file) {
	writeFileSync(file, await clientTypes());
	process.exit(0);
}
