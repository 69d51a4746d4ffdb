import { json } from '@sveltejs/kit';
import { POLICY_SCHEMA } from '$lib/core/policy/validate.ts';
import { SCHEDULE_SCHEMA } from '$lib/core/schedule/validate.ts';
import { STYLE_SCHEMA, TABLE_SCHEMA } from '$lib/core/style/schema.ts';
import { answer, NotFoundError } from '$lib/server/http/answers.ts';
import type { RequestHandler } from './$types.js';

const SCHEMAS: Record<string, unknown> = {
	style: STYLE_SCHEMA,
	table: TABLE_SCHEMA,
	schedule: SCHEDULE_SCHEMA,
	policy: POLICY_SCHEMA
};

/** The published JSON Schemas of style files, table files, schedules and policies. */
export const GET: RequestHandler = ({ params }) =>
	answer(async () => {
		const { name } = params;
		if (!Object.hasOwn(SCHEMAS, name))
			throw new NotFoundError(
				`There are these schemas: ${Object.keys(SCHEMAS)
					.map((one) => `/schema/${one}.json`)
					.join(', ')}.`
			);
		return json(SCHEMAS[name]);
	});
