import { parseJson } from '../core/well-formed.ts';
import type { House } from '../core/house.ts';
import { InputError } from '../core/errors.ts';
import { checkStyle, checkTableFile } from '../core/style/validate.ts';
import type { Style } from '../core/style/types.ts';
import type { Grid, Table } from '../core/table/grid.ts';
import type { CarriedTable, OpenDocument } from './document.ts';
import { givesStyle, isCleared, type StyleJob } from './job.ts';
import { canonicalStyle } from '../core/style/canonical.ts';
import { selfContained } from '../core/style/export.ts';
import type { FindBase } from '../core/style/inherit.ts';
import { tableToFile, type TableFile } from '../core/table/file.ts';
import { tableOf } from '../core/work/convert.ts';
import { saysFigures, withFigures, withFileFigures } from '../core/work/file.ts';
import { tidy, type WorkTable } from '../core/work/table.ts';

/**
 * Heptarch's own data in a file: the styles with their chains, and what each table wears. Tables are found again by
 * their text, so that an edit elsewhere in the document does no harm.
 */
export interface Carried {
	readonly styles: readonly Style[];
	readonly tables: readonly CarriedEntry[];
}
/** What a file says of one table: what it wears, and how its figures are worked out. */
export interface CarriedEntry {
	readonly index: number;
	readonly key: string;
	readonly wears?: CarriedTable;
	readonly figures?: CarriedFigures;
}
/** What works a table's figures out, as table files say it (formats.md, "Table files"). */
export type CarriedFigures = Pick<TableFile, 'rows' | 'columns' | 'numbers' | 'formulas' | 'totals'>;

const fileOf = (figures: CarriedFigures): TableFile => ({
	format: 'heptarch-table',
	version: 1,
	cells: [],
	...figures
});
const figuresOf = (work: WorkTable): CarriedFigures | undefined => {
	const { rows, columns, numbers, formulas, totals } = withFigures(tableToFile(tableOf(work)), work);
	const figures = tidy({ rows, columns, numbers, formulas, totals }) as CarriedFigures;
	return saysFigures(fileOf(figures)) ? figures : undefined;
};
/** What a file says of a table's figures. Throws where it is not valid. */
export function checkedFigures(json: string): CarriedFigures {
	const { rows, columns, numbers, formulas, totals } = parseJson(json) as CarriedFigures;
	const figures = tidy({ rows, columns, numbers, formulas, totals }) as CarriedFigures;
	checkTableFile(fileOf(figures));
	if (!saysFigures(fileOf(figures)))
		throw new InputError('carried', 'What the file says of this table is nothing about its figures.');
	return figures;
}

/** A short key of a table's size and text (FNV-1a over UTF-16 code units). */
export function contentKey(table: Pick<Table, 'rows' | 'columns' | 'cells'>): string {
	let hash = 0x811c9dc5;
	for (const { r, c, text } of table.cells) {
		hash = hashed(hash, String(r));
		hash = hashed(hash, ',');
		hash = hashed(hash, String(c));
		hash = hashed(hash, ',');
		hash = hashed(hash, text);
		hash = hashed(hash, '\n');
	}
	return `${table.rows}x${table.columns}-${(hash >>> 0).toString(16).padStart(8, '0')}`;
}

function hashed(hash: number, text: string): number {
	for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
	return hash;
}

export const wearsOf = (table: Table, style: string): CarriedTable => ({
	style,
	roles: table.roles,
	columns: table.columnInfo,
	firstColumns: table.firstColumns,
	lastColumns: table.lastColumns,
	partsOff: table.partsOff,
	carry: table.carry,
	touches: table.touches
});

/** A style that a file carries. Throws where it is none. */
export const checkedStyle = (json: string): Style => checkStyle(parseJson(json));

/** What a file says that a table wears. Throws where it is not valid, or not whole. */
export function checkedWears(json: string): CarriedTable {
	const { style, roles, columns, ...rest } = parseJson(json) as CarriedTable;
	const { firstColumns, lastColumns, partsOff, carry, touches } = rest;
	const wears = { style, roles, columns, firstColumns, lastColumns, partsOff, carry, touches };
	if (typeof style !== 'string' || Object.values<unknown>(wears).includes(undefined))
		throw new InputError('carried', 'What the file says of this table is not whole.');
	const { roles: rows, style: _, ...others } = wears;
	checkTableFile({ format: 'heptarch-table', version: 1, cells: [], rows, ...others });
	return { ...wears, columns: columns.map((column) => (column.name === undefined ? { ...column, name: '' } : column)) };
}

/** Runs a check of carried data; what is not valid is left out, for the file itself is what counts. */
export function orNothing<T>(check: () => T): T | undefined {
	try {
		return check();
	} catch (error) {
		if (error instanceof InputError || error instanceof SyntaxError || error instanceof TypeError) return undefined;
		throw error;
	}
}

/** The carried data as JSON, for formats that hold a file or an element of it. */
export const carriedToJson = ({ styles, tables }: Carried): string =>
	JSON.stringify({ styles: styles.map(canonicalStyle), tables });

export function carriedFromJson(text: string | undefined): Carried {
	const value = text
		? orNothing(() => parseJson(text) as { styles?: unknown[]; tables?: Record<string, unknown>[] })
		: undefined;
	const list = <T>(items: T[] | undefined): T[] => (Array.isArray(items) ? items : []);
	return {
		styles: list(value?.styles).flatMap((style) => orNothing(() => checkedStyle(JSON.stringify(style))) ?? []),
		tables: list(value?.tables).flatMap(
			(entry) =>
				orNothing(() => {
					const { index, key, wears, figures } = entry;
					return carriedEntry(Number(index), String(key), JSON.stringify(wears), JSON.stringify(figures));
				}) ?? []
		)
	};
}

/** One table of a file, of what can be read as JSON; undefined where nothing can. */
export function carriedEntry(
	index: number,
	key: string,
	wearsJson: string | undefined,
	figuresJson: string | undefined
): CarriedEntry | undefined {
	const wears = wearsJson ? orNothing(() => checkedWears(wearsJson)) : undefined;
	const figures = figuresJson ? orNothing(() => checkedFigures(figuresJson)) : undefined;
	return wears || figures ? { index, key, ...(wears && { wears }), ...(figures && { figures }) } : undefined;
}

/** What the tables of a file carry after some were given styles: those, and what the others wore before. */
export function carriedAfter(
	document: Pick<OpenDocument, 'tables' | 'styles'>,
	jobs: readonly StyleJob[],
	house: House,
	find?: FindBase
): Carried {
	const now = new Map(jobs.map((job) => [job.index, job]));
	const tables = document.tables.flatMap((entry) => {
		const job = now.get(entry.index);
		const wears =
			job && givesStyle(job) ? wearsOf(job.table, job.style.name) : job && isCleared(job) ? null : entry.carried;
		const figures = entry.work && figuresOf(entry.work);
		if (!wears && !figures) return [];
		return [{ index: entry.index, key: contentKey(entry.table), ...(wears && { wears }), ...(figures && { figures }) }];
	});
	const styles = new Map(document.styles.map((style) => [style.name, style]));
	for (const style of new Set(jobs.filter(givesStyle).map((job) => job.style)))
		styles.set(style.name, selfContained(style, house, find));
	const worn = new Set(tables.map(({ wears }) => wears?.style));
	return { styles: [...styles.values()].filter(({ name }) => worn.has(name)), tables };
}

/** What the file says of the table at `index`: found by its text, else by its place if size and style still fit. */
export function findCarried(
	carried: Carried,
	index: number,
	table: Grid,
	wornName: string | null
): CarriedTable | null {
	if (carried.tables.length === 0) return null;
	const key = contentKey(table);
	const fits = (wears: CarriedTable) => wears.roles.length === table.rows && wears.columns.length === table.columns;
	const exact = carried.tables.filter((entry) => entry.wears && entry.key === key);
	const { wears } =
		exact.find((entry) => entry.index === index) ??
		exact[0] ??
		carried.tables.find((entry) => entry.index === index && entry.wears?.style === wornName) ??
		{};
	return wears && fits(wears) ? wears : null;
}

/** How the figures of the table at `index` are worked out, where its texts are still those that were worked out. */
export function findFigures(carried: Carried, index: number, table: Grid): CarriedFigures | undefined {
	if (!carried.tables.some(({ figures }) => figures)) return undefined;
	const key = contentKey(table);
	const same = carried.tables.filter((entry) => entry.figures && entry.key === key);
	return (same.find((entry) => entry.index === index) ?? same[0])?.figures;
}
/** A table as its file works it out; undefined where that cannot be. */
export function withCarriedFigures(work: WorkTable, figures: CarriedFigures): WorkTable | undefined {
	const { rows = [], columns = [] } = figures;
	if (rows.length !== work.rows.length || columns.length !== work.columns.length) return undefined;
	const said: WorkTable = {
		...work,
		rows: work.rows.map((row, r) => ({ ...row, role: rows[r]! })),
		columns: work.columns.map((column, c) => ({ ...column, kind: columns[c]!.kind ?? column.kind }))
	};
	return orNothing(() => withFileFigures(said, fileOf(figures)));
}

/** A table as it was recognised, with what its file carries laid over it. */
export const withCarried = (table: Table, carried: CarriedTable): Table => ({
	...table,
	roles: carried.roles,
	columnInfo: carried.columns,
	firstColumns: carried.firstColumns,
	lastColumns: carried.lastColumns,
	partsOff: carried.partsOff,
	carry: carried.carry,
	touches: carried.touches
});
