import { COLUMN_KINDS, type ColumnKind } from '../table/roles.ts';

/** A level that decides a cell's look: I Ground … VII Touches. 0 is what a cell keeps from before. */
export type Rank = 0 | 1 | 2 | 3 | 4 | 5 | 6 | 7;

export const RANKS = [
	{ rank: 1, numeral: 'I', name: 'Ground' },
	{ rank: 2, numeral: 'II', name: 'Bands' },
	{ rank: 3, numeral: 'III', name: 'Columns' },
	{ rank: 4, numeral: 'IV', name: 'Rows' },
	{ rank: 5, numeral: 'V', name: 'Corners' },
	{ rank: 6, numeral: 'VI', name: 'Cell rules' },
	{ rank: 7, numeral: 'VII', name: 'Touches' }
] as const;

const NUMBERED_ROWS = ['group', 'subtotal', 'header'] as const;

export type PartName =
	| 'ground'
	| `columnBand:${number}`
	| `rowBand:${number}`
	| `columns:${string}`
	| 'firstColumn'
	| 'lastColumn'
	| 'note'
	| 'group'
	| `group:${number}`
	| 'subtotal'
	| `subtotal:${number}`
	| 'total'
	| 'header'
	| `header:${number}`
	| 'title'
	| `corner:${'header' | 'total'}-${'first' | 'last'}`;

export interface Part {
	readonly name: string;
	readonly rank: Rank;
	/** Place inside the rank: a later part has a higher one (engine §4 and §11). */
	readonly order: number;
	/** `rowBand` of `rowBand:2`; the whole name where there is no number. */
	readonly family: string;
	/** The stripe, tier or level; 0 for a bare name. */
	readonly number: number;
}

/** The families of ranks I–V in the order in which later ones win. Named columns are `columns:"…"`. */
const FAMILIES: readonly { family: string; rank: Rank }[] = [
	{ family: 'ground', rank: 1 },
	{ family: 'columnBand', rank: 2 },
	{ family: 'rowBand', rank: 2 },
	{ family: 'columns', rank: 3 },
	{ family: 'columns:"', rank: 3 },
	{ family: 'firstColumn', rank: 3 },
	{ family: 'lastColumn', rank: 3 },
	{ family: 'note', rank: 4 },
	{ family: 'group', rank: 4 },
	{ family: 'subtotal', rank: 4 },
	{ family: 'total', rank: 4 },
	{ family: 'header', rank: 4 },
	{ family: 'title', rank: 4 },
	{ family: 'corner:header-first', rank: 5 },
	{ family: 'corner:header-last', rank: 5 },
	{ family: 'corner:total-first', rank: 5 },
	{ family: 'corner:total-last', rank: 5 }
];

const LEVELS = 10_000;

/** The pattern of every part name, shared with the JSON Schema. */
export const PART_PATTERN =
	'^(ground|(rowBand|columnBand):[1-9]\\d{0,3}|columns:(' +
	COLUMN_KINDS.join('|') +
	')|columns:"[^"]+"|firstColumn|lastColumn|note|total|title|(' +
	NUMBERED_ROWS.join('|') +
	')(:[1-9]\\d{0,3})?|corner:(header|total)-(first|last))$';

const PART = new RegExp(PART_PATTERN);

const parsed = new Map<string, Part>();

/** Reads a part name; undefined where there is no such part. */
export function parsePart(name: string): Part | undefined {
	const known = parsed.get(name);
	if (known) return known;
	if (!PART.test(name)) return undefined;
	const colon = name.indexOf(':');
	const corner = name.startsWith('corner:');
	const base = colon < 0 || corner ? name : name.slice(0, colon);
	const key = name.startsWith('columns:"') ? 'columns:"' : base;
	const number = colon < 0 || corner || base === 'columns' ? 0 : Number(name.slice(colon + 1));
	const index = FAMILIES.findIndex(({ family }) => family === key);
	const part = { name, rank: FAMILIES[index]!.rank, order: index * LEVELS + number, family: base, number };
	// Names come from files: what is remembered stays bounded.
	if (parsed.size < 10_000) parsed.set(name, part);
	return part;
}

export const kindPart = (kind: ColumnKind): PartName => `columns:${kind}`;
export const namedPart = (name: string): PartName => `columns:"${name}"`;

/** Whether `name` is switched off by a table's list of parts off (engine §11, *Parts in use*). */
export function isPartOff(name: string, off: ReadonlySet<string>): boolean {
	if (off.size === 0) return false;
	if (off.has(name)) return true;
	const colon = name.indexOf(':');
	if (colon < 0) return false;
	const family = name.slice(0, colon);
	if (family === 'rule') return off.has('rules');
	if (off.has(family)) return true;
	if (family !== 'corner') return false;
	const [row, column] = name.slice(colon + 1).split('-') as [string, string];
	return off.has(row) || off.has(column === 'first' ? 'firstColumn' : 'lastColumn');
}

/** Sorts part names weakest first; unknown names last. */
export function comparePartNames(a: string, b: string): number {
	const left = parsePart(a);
	const right = parsePart(b);
	if (!left || !right) return left ? -1 : right ? 1 : a.localeCompare(b);
	return left.rank - right.rank || left.order - right.order || (a < b ? -1 : a > b ? 1 : 0);
}

/** A part as people read it: "row band 2", "money columns", "header tier 2", "header × first column". */
export function partWords(name: string): string {
	if (name === 'touch') return 'touch';
	if (name === 'kept') return 'what the file had';
	if (name.startsWith('rule:')) return `rule “${name.slice(5)}”`;
	const part = parsePart(name);
	if (!part) return name;
	if (name.startsWith('columns:"')) return `column “${name.slice(9, -1)}”`;
	switch (part.family) {
		case 'columns':
			return `${name.slice(8)} columns`;
		case 'firstColumn':
			return 'first column';
		case 'lastColumn':
			return 'last column';
		case 'rowBand':
			return `row band ${part.number}`;
		case 'columnBand':
			return `column band ${part.number}`;
		case 'header':
			return part.number ? `header tier ${part.number}` : 'header';
		case 'group':
			return part.number ? `group heading ${part.number}` : 'group heading';
		case 'subtotal':
			return part.number ? `subtotal ${part.number}` : 'subtotal';
		default:
			if (!name.startsWith('corner:')) return name;
			return `${name.slice(7).replace('-', ' × ')} column`;
	}
}
