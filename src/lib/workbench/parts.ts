import { parsePart, type Rank } from '../core/style/parts.ts';
import type { FlatStyle } from '../core/style/inherit.ts';
import { COLUMN_KINDS } from '../core/table/roles.ts';

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
		4: [
			'title',
			'header',
			...numbered('header', depth('header', 2)),
			'group',
			...numbered('group', depth('group', 1)),
			'subtotal',
			...numbered('subtotal', depth('subtotal', 1)),
			'total',
			'note'
		],
		5: ['corner:header-first', 'corner:header-last', 'corner:total-first', 'corner:total-last']
	};
	const known = offered[rank] ?? [];
	const extra = [...style.parts.keys()].filter((name) => parsePart(name)?.rank === rank && !known.includes(name));
	return [...known, ...extra];
}
