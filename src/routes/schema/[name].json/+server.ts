import { json } from '@sveltejs/kit';
import { SCHEDULE_SCHEMA } from '$lib/core/schedule/validate.ts';
import { STYLE_SCHEMA, TABLE_SCHEMA } from '$lib/core/style/schema.ts';
import { answer, NotFoundError } from '$lib/server/http/answers.ts';
import type { RequestHandler } from './$types.js';

const SCHEMAS: Record<string, unknown> = { style: STYLE_SCHEMA, table: TABLE_SCHEMA, schedule: SCHEDULE_SCHEMA };

/** The published JSON Schemas of style files, table files and schedules. */
export const GET: RequestHandler = ({ params }) =>
	answer(async () => {
		const { name } = params;
		if (!Object.hasOwn(SCHEMAS, name))
			throw new NotFoundError(
				'There are three schemas: /schema/style.json, /schema/table.json and /schema/schedule.json.'
			);
		return json(SCHEMAS[name]);
	});
