import { json } from '@sveltejs/kit';
import { STYLE_SCHEMA, TABLE_SCHEMA } from '$lib/core/style/schema.ts';
import { answer, NotFoundError } from '$lib/server/answers.ts';
import type { RequestHandler } from './$types.js';

const SCHEMAS: Record<string, unknown> = { style: STYLE_SCHEMA, table: TABLE_SCHEMA };

/** The published JSON Schemas of style and table files. */
export const GET: RequestHandler = ({ params }) =>
	answer(async () => {
		const schema = SCHEMAS[params.name];
		if (!schema) throw new NotFoundError('There are two schemas: /schema/style.json and /schema/table.json.');
		return json(schema);
	});
