import { Decimal } from 'decimal.js';
import { rowsMeeting } from '../cascade/rules.ts';
import { InputError } from '../errors.ts';
import { createGrid } from '../table/grid.ts';
import { isBody, type RowRole } from '../roles/index.ts';
import { type ColumnKind } from '../table/columns.ts';
import { ASPECTS } from '../style/types.ts';
import { amountOf, decimalMarkOf, parseValue, type DecimalMark } from '../values/parse.ts';
import { compute, formulaFault, NoAnswer } from '../values/formula.ts';
import { GATHERED, missingColumn, type ScheduleColumn, type ScheduleDefinition } from './definition.ts';
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

/** Texts in the order in which people list them: numbers by amount, dates by day, the rest by letters. */
function compareTexts(a: string, b: string, mark: DecimalMark): number {
	const [left, right] = [parseValue(a, mark), parseValue(b, mark)];
	const [x, y] = [amountOf(left), amountOf(right)];
	if (x && y) return x.comparedTo(y);
	if (left.type === 'date' && right.type === 'date') return left.iso < right.iso ? -1 : left.iso > right.iso ? 1 : 0;
	return collator.compare(a, b);
}

/** The sum of texts that are numbers of one unit; undefined where one is something else. Empty ones do not count. */
function sumOf(texts: readonly string[], mark: DecimalMark): string | undefined {
	let sum = new Decimal(0);
	let unit: string | undefined;
	let counted = 0;
	let places = 0;
	for (const text of texts) {
		const value = parseValue(text, mark);
		if (value.type === 'empty') continue;
		const amount = amountOf(value);
		if (!amount) return undefined;
		const own =
			value.type === 'percent'
				? '%'
				: value.type === 'money'
					? (value.currency ?? '')
					: ('unit' in value && value.unit) || '';
		if (counted > 0 && own !== unit) return undefined;
		unit = own;
		counted++;
		places = Math.max(places, amount.decimalPlaces());
		sum = sum.plus(amount);
	}
	if (counted === 0) return undefined;
	return `${written(sum, places, mark)}${unit ? ` ${unit}` : ''}`;
}

const written = (amount: Decimal, places: number, mark: DecimalMark): string => {
	const text = amount.toFixed(places);
	return mark === ',' ? text.replace('.', ',') : text;
};

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
				return object.attributes[column.attribute] ?? '';
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
	const mark = decimalMarkOf(
		(function* () {
			for (const column of columns)
				if (column.from === 'attribute' || column.from === 'sum')
					for (const object of chosen) yield object.attributes[column.attribute] ?? '';
		})()
	);
	if (definition.where && chosen.length) {
		const texts = chosen.map((object) => columns.map((column) => said(column, object)));
		const grid = createGrid(texts);
		const met = rowsMeeting(
			{
				...grid,
				roles: texts.map(() => 'body' as const),
				columnInfo: columns.map(({ name, kind }) => ({ name, kind: kind ?? 'mixed' })),
				firstColumns: 0,
				lastColumns: 0,
				partsOff: [],
				carry: ASPECTS,
				touches: []
			},
			definition.where
		);
		chosen = chosen.filter((_, i) => met[i]);
	}

	const telling = columns.filter(({ from }) => !GATHERED.has(from));
	interface Draft {
		readonly key: string;
		readonly objects: DrawingObject[];
		readonly texts: string[];
	}
	const drafts: Draft[] = [];
	const byKey = new Map<string, Draft>();
	for (const object of chosen) {
		const key = definition.rows === 'each' ? object.key : JSON.stringify(telling.map((column) => said(column, object)));
		const known = byKey.get(key);
		if (known) known.objects.push(object);
		else {
			const draft = { key: definition.rows === 'each' ? key : `=${key}`, objects: [object], texts: [] };
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
		draft.texts.push(
			...columns.map((column) => {
				if (column.from === 'count') return String(draft.objects.length);
				if (column.from !== 'sum') return said(column, first!);
				const texts = draft.objects.map((object) => said(column, object));
				const sum = sumOf(texts, mark);
				if (sum === undefined && texts.some((text) => text.trim()))
					problems.add(`“${column.name}” cannot be added up: not all of its values are numbers of one unit.`);
				return sum ?? '';
			})
		);
		answer(draft.texts);
	}

	/** Works out the computed columns of a row, those first that others rest on. */
	function answer(texts: string[]): void {
		const done = new Set<number>();
		const under = new Set<number>();
		const work = (c: number): string => {
			const column = columns[c]!;
			if (column.from !== 'computed' || done.has(c)) return texts[c]!;
			if (under.has(c)) throw new NoAnswer(`“${column.name}” rests on itself`);
			under.add(c);
			try {
				const textOf = (name: string) => work(columns.findIndex((one) => one.name === name));
				const amount = compute(column.formula, textOf, mark);
				texts[c] = written(amount, Math.min(PLACES, amount.decimalPlaces()), mark);
			} catch (error) {
				if (!(error instanceof NoAnswer)) throw error;
				problems.add(`“${column.name}” has rows without an answer: ${error.message}.`);
				texts[c] = '';
			}
			done.add(c);
			under.delete(c);
			return texts[c]!;
		};
		columns.forEach((_, c) => work(c));
	}

	const at = (name: string) => columns.findIndex((column) => column.name === name);
	const sorts = (definition.sort ?? []).map(({ by, order }) => ({ c: at(by), sign: order === 'rising' ? 1 : -1 }));
	const group = definition.groupBy === undefined ? -1 : at(definition.groupBy);
	if (sorts.length) {
		drafts.sort((a, b) => {
			for (const { c, sign } of sorts) {
				const order = compareTexts(a.texts[c]!, b.texts[c]!, mark);
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
		const texts = shown.map(({ column, c }) =>
			adds(column)
				? (sumOf(
						of.map(({ texts: own }) => own[c]!),
						mark
					) ?? '')
				: ''
		);
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
		for (const { key, objects: own, texts } of of)
			rows.push({
				key,
				role: 'body',
				cells: shown.map(({ column, c }) =>
					column.from === 'symbol'
						? sheet.symbols.has(texts[c]!)
							? { text: '', symbol: texts[c]! }
							: { text: '' }
						: { text: texts[c]! }
				),
				objects: own.map((object) => object.key)
			});
	};
	if (group >= 0) {
		const groups = new Map<string, Draft[]>();
		for (const draft of drafts) {
			const name = draft.texts[group]!;
			const own = groups.get(name);
			if (own) own.push(draft);
			else groups.set(name, [draft]);
		}
		const isSorted = sorts.some(({ c }) => c === group);
		const names = isSorted ? [...groups.keys()] : [...groups.keys()].sort((a, b) => compareTexts(a, b, mark));
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
	}
}

/** Whether a row stands for objects or was typed, and not for others. */
export const isListed = ({ role }: Pick<ScheduleRow, 'role'>): boolean => isBody(role);
