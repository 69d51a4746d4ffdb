import { InputError } from '../core/errors.ts';
import type { DrawingObject } from '../core/schedule/objects.ts';
import { makeRows, type ScheduleRows, type SheetFacts } from '../core/schedule/rows.ts';
import type { ScheduleDefinition } from '../core/schedule/definition.ts';
import { unpackObjects, type ShownObjects } from '../formats/svg/shown.ts';

/** What the schedule worker is told: the objects of a drawing, by its id ('' for the one that is open), or rows to make. */
export type Order =
	| { readonly drawing: string; readonly name: string; readonly objects: ShownObjects }
	| {
			readonly id: number;
			readonly definition: ScheduleDefinition;
			/** Other drawings whose objects are listed, too. */
			readonly with: readonly string[];
			readonly facts: SheetFacts;
	  };

export type RowsMade = { readonly id: number; readonly took: number } & (
	{ readonly rows: ScheduleRows } | { readonly problem: string }
);

const drawings = new Map<string, DrawingObject[]>();

addEventListener('message', ({ data }: MessageEvent<Order>) => {
	if ('drawing' in data) {
		const { drawing, name, objects } = data;
		const list = unpackObjects(objects, drawing ? name : '');
		// As on the server: an object of another drawing is told apart by that drawing.
		drawings.set(drawing, drawing ? list.map((one) => ({ ...one, key: `${drawing}/${one.key}` })) : list);
		return;
	}
	const { id, definition, facts } = data;
	const started = performance.now();
	let answer: { rows: ScheduleRows } | { problem: string };
	try {
		const listed = data.with.length
			? ['', ...data.with].flatMap((drawing) => drawings.get(drawing) ?? [])
			: (drawings.get('') ?? []);
		answer = { rows: makeRows(definition, listed, facts) };
	} catch (error) {
		if (!(error instanceof InputError)) throw error;
		answer = { problem: error.message };
	}
	postMessage({ id, took: performance.now() - started, ...answer } satisfies RowsMade);
});
