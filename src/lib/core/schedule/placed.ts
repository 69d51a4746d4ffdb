import type { Plotting } from '../layout/plotted.ts';
import type { Extent } from '../layout/matrix.ts';
import { isCovered, type WorkTable } from '../work/table.ts';
import { tableOf } from '../work/convert.ts';
import { renamed, type ScheduleDefinition } from './definition.ts';
import type { ScheduleRow, ScheduleRows } from './rows.ts';
import type { Reading } from './table.ts';

/** Which corner of a table stands at its point; the table grows away from it. */
export const CORNERS = ['top-start', 'top-end', 'bottom-start', 'bottom-end'] as const;
export type Corner = (typeof CORNERS)[number];

/** Where the rows of a placed table come from. */
export type PlacedSource =
	| {
			readonly from: 'objects';
			readonly definition: ScheduleDefinition;
			/** Other drawings whose objects it lists, too: their ids and names in the house. */
			readonly with?: readonly { readonly id: string; readonly name: string }[];
	  }
	| { readonly from: 'revisions' }
	/** By hand, on the table bench. */
	| { readonly from: 'bench'; readonly work: WorkTable };

/** A table on a sheet. Lengths are millimetres on paper. */
export interface PlacedTable extends Plotting {
	/** Of its group in the file. */
	readonly id: string;
	readonly source: PlacedSource;
	/** As they were last accepted. */
	readonly rows: ScheduleRows;
	/** From the sheet's top left corner. */
	readonly at: { readonly x: number; readonly y: number };
	readonly corner: Corner;
	readonly reads: Reading;
	/** Of columns that were given one, by name. */
	readonly widths?: Readonly<Record<string, number>>;
}

/** An id that no table on a sheet has yet. */
export function freeId(placed: readonly Pick<PlacedTable, 'id'>[]): string {
	const taken = new Set(placed.map(({ id }) => id));
	let number = taken.size + 1;
	while (taken.has(`table-${number}`)) number++;
	return `table-${number}`;
}

/** The innermost of the frames that stand inside a sheet's edges. */
export const innerFrame = (
	frames: readonly Extent[],
	{ width, height }: { readonly width: number; readonly height: number }
): Extent | undefined =>
	frames
		.filter(({ x1, y1, x2, y2 }) => x1 > 1 && y1 > 1 && x2 < width - 1 && y2 < height - 1)
		.sort((a, b) => b.x1 - a.x1)[0];

/** A table keeps so far from a frame, and from the sheet's edge where there is none. */
const FROM_FRAME = 3;
const FROM_EDGE = 10;

/** The rectangle that tables are put in: inside the frame, else inside the sheet's edges. */
export function roomFor(frames: readonly Extent[], sheet: { readonly width: number; readonly height: number }): Extent {
	const frame = innerFrame(frames, sheet);
	const { x1, y1, x2, y2 } = frame ?? { x1: 0, y1: 0, x2: sheet.width, y2: sheet.height };
	const keep = frame ? FROM_FRAME : FROM_EDGE;
	return { x1: x1 + keep, y1: y1 + keep, x2: x2 - keep, y2: y2 - keep };
}

/** A table in which a column is called otherwise: what was typed in it, and its width, stay with it. */
export function withRenamed(placed: PlacedTable, from: string, to: string): PlacedTable {
	const { source, rows, widths } = placed;
	return {
		...placed,
		source: source.from === 'objects' ? { ...source, definition: renamed(source.definition, from, to) } : source,
		rows: { ...rows, columns: rows.columns.map((column) => (column.name === from ? { ...column, name: to } : column)) },
		...(widths && {
			widths: Object.fromEntries(Object.entries(widths).map(([name, width]) => [name === from ? to : name, width]))
		})
	};
}

/** Where a table's top left corner is. */
export function topLeft(
	{ at, corner }: Pick<PlacedTable, 'at' | 'corner'>,
	size: { readonly width: number; readonly height: number }
): { x: number; y: number } {
	return {
		x: corner.endsWith('end') ? at.x - size.width : at.x,
		y: corner.startsWith('bottom') ? at.y - size.height : at.y
	};
}

/** The point of a table whose top left corner is to be at `place`. */
export function pointFor(
	corner: Corner,
	place: { readonly x: number; readonly y: number },
	size: { readonly width: number; readonly height: number }
): { x: number; y: number } {
	return {
		x: corner.endsWith('end') ? place.x + size.width : place.x,
		y: corner.startsWith('bottom') ? place.y + size.height : place.y
	};
}

/** The rows of a table that was made on the bench, as a sheet keeps them. Columns without a name of their own get a number. */
export function rowsOfWork(work: WorkTable): ScheduleRows {
	const taken = new Set<string>();
	const columns = tableOf(work).columnInfo.map(({ name, kind }, c) => {
		const free = name && !taken.has(name) ? name : `Column ${c + 1}`;
		taken.add(free);
		return { name: free, kind, typed: true };
	});
	return {
		columns,
		rows: work.rows.map(({ id, role, cells }) =>
			typedRow(
				`row:${id}`,
				role,
				cells.map((slot) => (isCovered(slot) ? '' : slot.text))
			)
		),
		problems: []
	};
}

/** A placed table that is, from now on, what was made of it on the bench. */
export const withBench = (placed: PlacedTable, work: WorkTable): PlacedTable => ({
	...placed,
	source: { from: 'bench', work },
	rows: rowsOfWork(work),
	reads: 'down'
});

export interface Revision {
	readonly number: string;
	readonly date: string;
	readonly what: string;
	readonly who: string;
}

const REVISION_COLUMNS = ['Rev.', 'Date', 'What changed', 'By'];

const typedRow = (key: string, role: ScheduleRow['role'], texts: readonly string[]): ScheduleRow => ({
	key,
	role,
	cells: texts.map((text) => ({ text })),
	objects: []
});

/** The rows of a revision table without a revision. */
export function noRevisions(title: string): ScheduleRows {
	return {
		columns: REVISION_COLUMNS.map((name) => ({
			name,
			typed: true,
			...(name === 'Date' && { kind: 'date' as const }),
			...(name === 'Rev.' && { kind: 'code' as const }),
			...(name === 'By' && { kind: 'text' as const })
		})),
		rows: [
			...(title.trim() ? [typedRow('title', 'title', [title, '', '', ''])] : []),
			typedRow('header', 'header:1', REVISION_COLUMNS)
		],
		problems: []
	};
}

/** A revision table with one more: the newest stands farthest from the header. */
export const withRevision = (rows: ScheduleRows, { number, date, what, who }: Revision): ScheduleRows => ({
	...rows,
	rows: [...rows.rows, typedRow(`rev:${number}`, 'body', [number, date, what, who])]
});

/** The number of the revision after the last one: letters and figures count on. */
export function nextRevision({ rows }: ScheduleRows): string {
	const last = rows
		.filter(({ role }) => role === 'body')
		.at(-1)
		?.cells[0]?.text.trim();
	if (!last) return 'A';
	if (/^\d+$/.test(last)) return String(Number(last) + 1).padStart(last.length, '0');
	const letters = /^(.*?)([A-Z]+)$/.exec(last);
	if (!letters) return '';
	let carry = true;
	let next = '';
	for (const letter of [...letters[2]!].reverse()) {
		const code: number = letter.charCodeAt(0) - 65 + (carry ? 1 : 0);
		carry = code > 25;
		next = String.fromCharCode(65 + (code % 26)) + next;
	}
	return letters[1]! + (carry ? 'A' : '') + next;
}
