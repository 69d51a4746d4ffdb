import { LEVEL_PATTERN, ROLES, type CornerRow, type RoleFamily } from '../roles/index.ts';
import { COLUMN_KINDS, type ColumnKind } from '../table/columns.ts';

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

type RolePart = Exclude<RoleFamily, 'body'>;

export type PartName =
	| 'ground'
	| `columnBand:${number}`
	| `rowBand:${number}`
	| `columns:${string}`
	| 'firstColumn'
	| 'lastColumn'
	| RolePart
	| `${RolePart}:${number}`
	| `corner:${CornerRow}-${'first' | 'last'}`;

export interface Part {
	readonly name: string;
	readonly rank: Rank;
	/** Place inside the rank: a later part has a higher one (engine §4 and §11). */
	readonly order: number;
	/** `rowBand` of `rowBand:2`; the whole name where there is nothing after it. */
	readonly family: string;
	/** The stripe, tier or level; 0 for a bare name. */
	readonly number: number;
}

interface Family {
	/** Of its name: `rowBand` of `rowBand:2`. Columns by name are `columns:"`. */
	readonly family: string;
	readonly rank: Rank;
	/** Pattern of what follows the family in its name. */
	readonly rest?: string;
	/** As people read it, by what follows. */
	readonly words: (rest: string) => string;
	/** Which cells it rules: "rows that name the columns". */
	readonly rules: (rest: string) => string;
}

const ROLE_PARTS = ROLES.filter(({ part }) => part).sort((a, b) => a.strength - b.strength);
/** Stripes of a band, by their number. */
const STRIPE = ':[1-9]\\d{0,3}';

/** The families of ranks I–V in the order in which later ones win. */
const FAMILIES: readonly Family[] = [
	{ family: 'ground', rank: 1, words: () => 'ground', rules: () => 'every cell' },
	{
		family: 'columnBand',
		rank: 2,
		rest: STRIPE,
		words: (stripe) => `column band ${stripe}`,
		rules: (stripe) => `columns whose turn is stripe ${stripe} of their cycle`
	},
	{
		family: 'rowBand',
		rank: 2,
		rest: STRIPE,
		words: (stripe) => `row band ${stripe}`,
		rules: (stripe) => `body rows whose turn is stripe ${stripe} of their cycle`
	},
	{
		family: 'columns',
		rank: 3,
		rest: `:(${COLUMN_KINDS.join('|')})`,
		words: (kind) => `${kind} columns`,
		rules: (kind) => `columns that are recognised as ${kind}`
	},
	{
		family: 'columns:"',
		rank: 3,
		rest: '[^"]+"',
		words: (name) => `column “${name}”`,
		rules: (name) => `columns that a header calls “${name}”`
	},
	{ family: 'firstColumn', rank: 3, words: () => 'first column', rules: () => 'columns that name the rows' },
	{ family: 'lastColumn', rank: 3, words: () => 'last column', rules: () => 'last columns, where a table has some' },
	...ROLE_PARTS.map(({ family, levels, part }): Family => ({
		family,
		rank: 4,
		...(levels && { rest: `(:${LEVEL_PATTERN})?` }),
		words: (level) => [part!.words, level && part!.level, level].filter(Boolean).join(' '),
		rules: (level) => `${part!.rules}${level && `, of ${part!.level || 'level'} ${level} only`}`
	})),
	...ROLES.flatMap(({ corners }) => (corners ? [corners] : [])).flatMap((row) =>
		(['first', 'last'] as const).map((column): Family => ({
			family: `corner:${row}-${column}`,
			rank: 5,
			words: () => `${row} × ${column} column`,
			rules: () => `cells where ${row} rows cross the ${column} column`
		}))
	)
];

const LEVELS = 10_000;

/** The pattern of every part name, shared with the JSON Schema. */
export const PART_PATTERN = `^(${FAMILIES.map(({ family, rest = '' }) => family + rest).join('|')})$`;

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
	if (!parsePart(name)) return name;
	const { family, rest } = familyOf(name);
	return family.words(rest);
}

/** The family of a part, and what follows it in its name. */
function familyOf(name: string): { family: Family; rest: string } {
	const isNamed = name.startsWith('columns:"');
	const family = FAMILIES.find((one) =>
		isNamed ? one.family === 'columns:"' : one.family === name || one.family === name.split(':')[0]
	)!;
	return { family, rest: isNamed ? name.slice(9, -1) : name.slice(family.family.length + 1) };
}

/** Which cells a part rules, and what wins over it, in a sentence each; '' for what is no part. */
export function partHelp(name: string): string {
	const part = parsePart(name);
	if (!part) return '';
	const { family, rest } = familyOf(name);
	const wins =
		part.rank === 1
			? 'Every other part wins over it.'
			: part.rank === 5
				? 'Only cell rules and touches win over it.'
				: `Parts further on in the list win over it, and so do ranks ${RANKS.find(({ rank }) => rank === part.rank + 1)!.numeral} to VII.`;
	return `Rules ${family.rules(rest)}. ${wins}`;
}
