import { parsePart, type Rank } from '../core/style/parts.ts';
import type { FlatStyle } from '../core/style/inherit.ts';
import { isHeader, roleFamily, ROLES, type RowRole } from '../core/roles/index.ts';
import { COLUMN_KINDS } from '../core/table/columns.ts';

const numbered = (family: string, count: number) => Array.from({ length: count }, (_, i) => `${family}:${i + 1}`);

/** The parts of a rank that the bench offers: those of every table, and whatever else the style has. Weakest first. */
export function partsOfRank(rank: Rank, style: FlatStyle): string[] {
	const depth = (family: string, least: number) =>
		Math.max(
			least,
			...[...style.parts.keys()].filter((name) => name.startsWith(`${family}:`)).map((name) => parsePart(name)!.number)
		);
	const offered: Partial<Record<Rank, string[]>> = {
		1: ['ground'],
		2: [
			...numbered('rowBand', Math.max(style.bands.rowSizes.length, depth('rowBand', 0))),
			...numbered('columnBand', Math.max(style.bands.columnSizes.length, depth('columnBand', 0)))
		],
		3: ['firstColumn', 'lastColumn', ...COLUMN_KINDS.map((kind) => `columns:${kind}`)],
		4: ROLES.filter(({ part }) => part).flatMap(({ family, levels, isHeader }) => [
			family,
			...(levels ? numbered(family, depth(family, isHeader ? 2 : 1)) : [])
		]),
		5: ROLES.flatMap(({ corners }) => (corners ? [`corner:${corners}-first`, `corner:${corners}-last`] : []))
	};
	const known = offered[rank] ?? [];
	const extra = [...style.parts.keys()].filter((name) => parsePart(name)?.rank === rank && !known.includes(name));
	return [...known, ...extra];
}

/** What of a style a table can wear or leave off (parts in use): with `roles`, only what rows of these roles have. */
export function partsInUse(roles?: readonly RowRole[]): { readonly name: string; readonly words: string }[] {
	const families = roles && new Set(roles.map(roleFamily));
	const tiers = roles && new Set(roles.filter(isHeader)).size;
	const rows = ROLES.filter(({ part, family }) => part && (!families || families.has(family)));
	const ofRow = ({ family, all, isHeader: isTiered }: (typeof rows)[number]) => ({
		name: family,
		words: isTiered && tiers && tiers > 1 ? `${all}, ${tiers} tiers` : all
	});
	return [
		...rows.filter(({ fixed }) => fixed !== 'foot').map(ofRow),
		{ name: 'firstColumn', words: 'first column' },
		{ name: 'lastColumn', words: 'last column' },
		{ name: 'columns', words: 'column kinds' },
		{ name: 'rowBand', words: 'row bands' },
		{ name: 'columnBand', words: 'column bands' },
		...rows.filter(({ fixed }) => fixed === 'foot').map(ofRow)
	];
}
