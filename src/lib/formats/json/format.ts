import type { Format } from '../format.ts';
import { applyWork } from '../work.ts';
import { json as about } from './about.ts';
import { readJson, type JsonDocument } from './read.ts';
import { writeJson } from './write.ts';

export const json: Format<JsonDocument> = {
	...about,
	sniff: ({ text }) => (/^\s*[[{]/.test(text) && text.includes('heptarch-table') ? 2 : 0),
	open: readJson,
	write: (document, jobs, options) =>
		writeJson(
			document,
			jobs,
			options,
			document.tables.map(({ index }) => index)
		),
	make: ({ document, flow, jobs, options }) => writeJson(document, jobs, options, flow.order),
	rework(document, works, gone) {
		const tables = document.tables
			.filter(({ index }) => !gone.includes(index))
			.map((entry, index) => ({ ...entry, index }));
		return {
			...document,
			blocks: tables.map(({ index }) => ({ kind: 'table', index })),
			tables: tables.map((entry) => {
				const own = works.get(entry.index);
				return own ? applyWork(entry, own) : entry;
			})
		};
	}
};
