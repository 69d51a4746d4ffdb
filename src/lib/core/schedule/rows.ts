import { rowsMeeting } from '../cascade/rules.ts';
import { InputError } from '../errors.ts';
import { createGrid } from '../table/grid.ts';
import { isBody, type RowRole } from '../roles/index.ts';
import { type ColumnKind } from '../table/columns.ts';
import { ASPECTS } from '../style/types.ts';
import { together, compareFigures, readFigure, type Figure } from '../values/figure.ts';
import { compute, formulaFault, literalFigure, reachesOut } from '../values/formula.ts';
import { NoAnswer } from '../values/no-answer.ts';
import { parseValue } from '../values/parse.ts';
import { currencyDecimals, decimalsIn, writtenFigure } from '../values/written.ts';
import { GATHERED, isFilterOnRows, missingColumn, type ScheduleColumn, type ScheduleDefinition } from './definition.ts';
import type { DrawingObject } from './objects.ts';

export interface ScheduleCell {
	readonly text: string;
	/** Id of a symbol that is drawn in it. */
	readonly symbol?: string;
	/** What the drawing said when a person wrote this text over it. */
	readonly over?: string;
}

/** A row with what it stands for: the objects by their keys, none for headings and totals. */
export interface ScheduleRow {
	/** The same as long as the row stands for the same. */
	readonly key: string;
	readonly role: RowRole;
	readonly cells: readonly ScheduleCell[];
	readonly objects: readonly string[];
}

export interface ShownColumn {
	readonly name: string;
	readonly kind?: ColumnKind;
	readonly width?: string;
	readonly turned?: boolean;
	/** Filled in by hand. */
	readonly typed?: boolean;
}

/** A schedule's rows in reading order, its title and header first. */
export interface ScheduleRows {
	readonly columns: readonly ShownColumn[];
	readonly rows: readonly ScheduleRow[];
	/** Answers that cannot be given, each once. */
	readonly problems: readonly string[];
}

/** A placed table has this many rows at most. */
export const MOST_ROWS = 5_000;

export interface SheetFacts {
	/** The scale's denominator: 50 for 1:50. */
	readonly scale: number;
	/** What this drawing is called. */
	readonly name: string;
	/** What each kind of objects is called. */
	readonly names: ReadonlyMap<string, string>;
	/** Kinds that a symbol draws. */
	readonly symbols: ReadonlySet<string>;
}

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** What objects say follows the standards of data: the point is the decimal mark, and nothing groups (figures.md §2). */
const MARK = '.';

/** Something in a cell: its text, and the figure in full that it shows. */
interface Said {
	readonly text: string;
	readonly figure: Figure | undefined;
}
const saying = (text: string): Said => ({ text, figure: readFigure(text, MARK) });
const EMPTY: Said = { text: '', figure: undefined };

/** The order in which people list things: figures by what they are worth, the rest by letters. */
function compareSaid(a: Said, b: Said): number {
	const order = a.figure && b.figure && compareFigures(a.figure, b.figure);
	return order ?? collator.compare(a.text, b.text);
}

/**
 * The sum of what is figures of one dimension or currency; empty for nothing, and undefined where something else is among
 * it. Empty texts do not count.
 */
function sumOf(all: readonly Said[]): Said | undefined {
	const filled = all.filter(({ text }) => parseValue(text, MARK).type !== 'empty');
	if (!filled.length) return EMPTY;
	const figures = filled.flatMap(({ figure }) => figure ?? []);
	if (figures.length < filled.length) return undefined;
	try {
		const figure = together('sum', figures)!;
		const { amount, measure } = figure;
		const samples = filled.map(({ text }) => text);
		const decimals = Math.max(
			currencyDecimals(measure) ?? 0,
			...samples.map((text) => decimalsIn(text, MARK)),
			...figures.map((one) => (one.measure === measure ? 0 : Math.min(amount.decimals ?? 0, PLACES)))
		);
		return { text: writtenFigure(figure, { mark: MARK, decimals, samples, beside: [] }), figure };
	} catch (error) {
		if (error instanceof NoAnswer) return undefined;
		throw error;
	}
}

/** Computed answers are shown to this many decimals at most. */
const PLACES = 4;

/**
 * Makes a schedule's rows from a drawing's objects. Throws InputError for a definition that names columns that are not
 * there, and for more rows than a table on a sheet can have.
 */
export function makeRows(
	definition: ScheduleDefinition,
	objects: readonly DrawingObject[],
	sheet: SheetFacts
): ScheduleRows {
	checkNames(definition);
	const { columns } = definition;
	const kinds = definition.kinds && new Set(definition.kinds);
	let chosen = kinds ? objects.filter(({ kind }) => kinds.has(kind)) : [...objects];
	const problems = new Set<string>();

	const said = (column: ScheduleColumn, object: DrawingObject): string => {
		switch (column.from) {
			case 'attribute':
			case 'sum':
				return Object.hasOwn(object.attributes, column.attribute) ? object.attributes[column.attribute]! : '';
			case 'kind':
				return sheet.names.get(object.kind) ?? object.kind;
			case 'symbol':
				return object.kind;
			case 'layer':
				return object.layer;
			case 'drawing':
				return object.drawing || sheet.name;
			case 'x':
				return ((object.x * sheet.scale) / 1_000).toFixed(2);
			case 'y':
				return ((object.y * sheet.scale) / 1_000).toFixed(2);
			case 'count':
				return '1';
			default:
				return '';
		}
	};
	const { where } = definition;
	/** Of lists of texts, one for each column, those that meet the filter. */
	const meeting = (texts: readonly (readonly string[])[]): boolean[] =>
		rowsMeeting(
			{
				...createGrid(texts.map((row) => [...row])),
				roles: texts.map(() => 'body' as const),
				columnInfo: columns.map(({ name, kind }) => ({ name, kind: kind ?? 'mixed' })),
				firstColumns: 0,
				lastColumns: 0,
				partsOff: [],
				carry: ASPECTS,
				touches: []
			},
			where!
		);
	// A filter that names what is gathered from several objects is on rows, any other one on objects (figures.md §6).
	const isOnRows = !!where && isFilterOnRows(definition);
	if (where && !isOnRows && chosen.length) {
		const met = meeting(chosen.map((object) => columns.map((column) => said(column, object))));
		chosen = chosen.filter((_, i) => met[i]);
	}

	const telling = columns.filter(({ from }) => !GATHERED.has(from));
	interface Draft {
		readonly key: string;
		readonly objects: DrawingObject[];
		readonly cells: Said[];
	}
	let drafts: Draft[] = [];
	const byKey = new Map<string, Draft>();
	for (const object of chosen) {
		const key = definition.rows === 'each' ? object.key : JSON.stringify(telling.map((column) => said(column, object)));
		const known = byKey.get(key);
		if (known) known.objects.push(object);
		else {
			const draft = { key: definition.rows === 'each' ? key : `=${key}`, objects: [object], cells: [] };
			byKey.set(key, draft);
			drafts.push(draft);
		}
	}
	if (drafts.length > MOST_ROWS)
		throw new InputError(
			'too-long',
			`This schedule has ${drafts.length.toLocaleString('en')} rows; a table on a sheet has ${MOST_ROWS.toLocaleString('en')} at most. Take rows that say the same as one, or fewer kinds.`
		);

	for (const draft of drafts) {
		const [first] = draft.objects;
		draft.cells.push(
			...columns.map((column): Said => {
				if (column.from === 'count') return saying(String(draft.objects.length));
				if (column.from !== 'sum') return saying(said(column, first!));
				const sum = sumOf(draft.objects.map((object) => saying(said(column, object))));
				if (!sum)
					problems.add(`“${column.name}” cannot be added up: not all of its values are figures that go together.`);
				return sum ?? EMPTY;
			})
		);
		answer(draft.cells);
	}
	if (isOnRows && drafts.length) {
		const met = meeting(drafts.map(({ cells }) => cells.map(({ text }) => text)));
		drafts = drafts.filter((_, i) => met[i]);
	}

	/** Works out the computed columns of a row, those first that others rest on. */
	function answer(cells: Said[]): void {
		const done = new Set<number>();
		const under = new Set<number>();
		const work = (c: number): Said => {
			const column = columns[c]!;
			if (column.from !== 'computed' || done.has(c)) return cells[c]!;
			if (under.has(c)) throw new NoAnswer(`“${column.name}” rests on itself`);
			under.add(c);
			try {
				const used: string[] = [];
				const none = () => {
					throw new NoAnswer('it reaches beyond its row');
				};
				const figure = compute(column.formula, {
					literal: (text) => {
						used.push(text);
						return literalFigure(text, MARK);
					},
					column: (name) => {
						const own = work(columns.findIndex((one) => one.name === name));
						if (!own.figure && parseValue(own.text, MARK).type !== 'empty')
							throw new NoAnswer(`“${name}” has no number`);
						if (own.text.trim()) used.push(own.text);
						return own.figure;
					},
					summary: none,
					total: none,
					above: none
				});
				cells[c] = figure ? { text: written(figure, used), figure } : EMPTY;
			} catch (error) {
				if (!(error instanceof NoAnswer)) throw error;
				problems.add(`“${column.name}” has rows without an answer: ${error.message}.`);
				cells[c] = EMPTY;
			}
			done.add(c);
			under.delete(c);
			return cells[c]!;
		};
		columns.forEach((_, c) => work(c));
	}
	function written(figure: Figure, used: readonly string[]): string {
		const most = Math.max(0, ...used.map((text) => decimalsIn(text, MARK)));
		const own = Math.min(PLACES, figure.amount.decimals ?? PLACES);
		const decimals = currencyDecimals(figure.measure) ?? Math.max(most <= PLACES ? own : most, 0);
		return writtenFigure(figure, { mark: MARK, decimals, samples: used, beside: [] });
	}

	const at = (name: string) => columns.findIndex((column) => column.name === name);
	const sorts = (definition.sort ?? []).map(({ by, order }) => ({ c: at(by), sign: order === 'rising' ? 1 : -1 }));
	const group = definition.groupBy === undefined ? -1 : at(definition.groupBy);
	if (sorts.length) {
		drafts.sort((a, b) => {
			for (const { c, sign } of sorts) {
				const order = compareSaid(a.cells[c]!, b.cells[c]!);
				if (order) return order * sign;
			}
			return 0;
		});
	}

	const shown = columns.flatMap((column, c) => (column.hidden ? [] : [{ column, c }]));
	const adds = (column: ScheduleColumn) => column.total ?? (column.from === 'count' || column.from === 'sum');
	const rows: ScheduleRow[] = [];
	const special = (key: string, role: RowRole, texts: readonly string[]) =>
		rows.push({ key, role, cells: texts.map((text) => ({ text })), objects: [] });
	const sums = (key: string, role: RowRole, label: string, of: readonly Draft[]) => {
		const texts = shown.map(({ column, c }) => {
			if (!adds(column)) return '';
			const sum = sumOf(of.map(({ cells }) => cells[c]!));
			if (!sum)
				problems.add(`“${column.name}” cannot be added up: not all of its values are figures that go together.`);
			return sum?.text ?? '';
		});
		const free = shown.findIndex(({ column }, i) => texts[i] === '' && column.from !== 'symbol');
		if (free >= 0) texts[free] = label;
		special(key, role, texts);
	};
	const blank = shown.slice(1).map(() => '');
	if (definition.title.trim()) special('title', 'title', [definition.title, ...blank]);
	special(
		'header',
		'header:1',
		shown.map(({ column }) => column.name)
	);
	const list = (of: readonly Draft[]) => {
		for (const { key, objects: own, cells } of of)
			rows.push({
				key,
				role: 'body',
				cells: shown.map(({ column, c }) =>
					column.from === 'symbol'
						? sheet.symbols.has(cells[c]!.text)
							? { text: '', symbol: cells[c]!.text }
							: { text: '' }
						: { text: cells[c]!.text }
				),
				objects: own.map((object) => object.key)
			});
	};
	if (group >= 0) {
		const groups = new Map<string, Draft[]>();
		for (const draft of drafts) {
			const name = draft.cells[group]!.text;
			const own = groups.get(name);
			if (own) own.push(draft);
			else groups.set(name, [draft]);
		}
		const isSorted = sorts.some(({ c }) => c === group);
		const names = isSorted ? [...groups.keys()] : [...groups.keys()].sort((a, b) => compareSaid(saying(a), saying(b)));
		for (const name of names) {
			special(`group:${name}`, 'group:1', [`${columns[group]!.name} ${name || '–'}`, ...blank]);
			list(groups.get(name)!);
			if (definition.subtotals) sums(`subtotal:${name}`, 'subtotal:1', 'Subtotal', groups.get(name)!);
		}
	} else list(drafts);
	if (definition.total && drafts.length) sums('total', 'total', 'Total', drafts);
	return {
		columns: shown.map(({ column: { name, kind, width, turned, from } }) => ({
			name,
			...(kind ? { kind } : from === 'count' ? { kind: 'count' as const } : {}),
			...(width && { width }),
			...(turned && { turned }),
			...(from === 'typed' && { typed: true })
		})),
		rows,
		problems: [...problems]
	};
}

/** Throws InputError where a definition names one thing twice or something that is not there. */
export function checkNames(definition: ScheduleDefinition): void {
	const { columns } = definition;
	const names = columns.map(({ name }) => name);
	const twice = names.find((name, i) => names.indexOf(name) !== i);
	if (twice !== undefined)
		throw new InputError('schedule', `Two columns are called “${twice}”. Give one of them another name.`, '/columns');
	if (columns.every(({ hidden }) => hidden))
		throw new InputError('schedule', 'Every column is hidden; a schedule shows one at least.', '/columns');
	const missing = missingColumn(definition);
	if (missing !== undefined)
		throw new InputError('schedule', `There is no column “${missing}” to sort, group or filter by.`, '/columns');
	for (const column of columns) {
		const fault = column.from === 'computed' ? formulaFault(column.formula, names) : undefined;
		if (fault) throw new InputError('schedule', `“${column.name}”: ${fault}`, '/columns');
		if (column.from === 'computed' && reachesOut(column.formula))
			throw new InputError(
				'schedule',
				`“${column.name}”: A schedule’s formula names columns of its own row.`,
				'/columns'
			);
	}
}

/** Whether a row stands for objects or was typed, and not for others. */
export const isListed = ({ role }: Pick<ScheduleRow, 'role'>): boolean => isBody(role);
