import { BLACK, contrast, PAPER, toHex } from '../colour.ts';
import { lowContrast, type LowContrast } from '../cascade/contrast.ts';
import { appearanceOf, type Appearance } from '../cascade/look.ts';
import { resolve, traceCell, type Decided } from '../cascade/resolve.ts';
import { partWords } from '../style/parts.ts';
import type { Table } from '../table/grid.ts';
import { plural, pluralWord } from '../words.ts';
import { findingKind, found, type Finding, type Fix } from './finding.ts';
import { withFix, type Trial, type Tried } from './trial.ts';

/** The contrast of a cell after a fix, as composed. */
function contrastWith(trial: Trial, { resolved }: Tried, cell: number, fix: Fix): number {
	const fixed = resolve(resolved.structure.table, trial.flatten(withFix(trial.style, fix)), trial.house);
	const appearance = appearanceOf(fixed);
	const { fill, ink } = appearance.looks[appearance.cellLook[cell]!]!;
	return contrast(ink ?? '#000000', fill === undefined || fill === 'none' ? PAPER : fill);
}

/** Cells that are hard to read for one reason: one part sets their ink, one their fill. */
interface Group {
	readonly tried: Tried;
	readonly worst: LowContrast;
	count: number;
}

function groupsOf(trial: Trial): Group[] {
	const groups = new Map<string, Group>();
	for (const tried of trial.tables) {
		const { table } = tried.resolved.structure;
		for (const low of lowContrast(table.cells, tried.appearance)) {
			const { r, c } = table.cells[low.cell]!;
			const trace = traceCell(tried.resolved, r, c);
			const key = `${trace.get('text.ink')?.[0]?.part} ${trace.get('fill.ink')?.[0]?.part}`;
			const known = groups.get(key);
			if (known) known.count += low.cells;
			else groups.set(key, { tried, worst: low, count: low.cells });
		}
	}
	return [...groups.values()];
}

interface Args {
	readonly text: string;
	readonly ratio: number;
	readonly wanted: number;
	/** How many cells more have it. */
	readonly more: number;
	/** The table that shows it; absent where a table is spoken of anyway. */
	readonly table?: string;
	readonly inkFrom?: string;
	readonly fillFrom?: string;
}

const others = (more: number): string =>
	more === 0 ? '' : `, and so ${pluralWord(more, 'has one more cell', `have ${plural(more, 'more cell')}`)}`;

/** Text that cannot be read well on its background as composed (WCAG 2.2, SC 1.4.3). */
export const lowContrastOf = findingKind({
	code: 'contrast',
	called: 'text hard to read',
	of: ['style', 'table'],
	words: ({ text, ratio, wanted, more, table }: Args) =>
		table === undefined
			? `“${text}”: contrast ${ratio.toFixed(1)}:1, and ${wanted}:1 is needed${more ? `; so have ${more} more` : ''}`
			: `“${text}” has a contrast of ${ratio.toFixed(1)}:1 in ${table}${others(more)}`,
	why: ({ wanted, inkFrom, fillFrom }: Args) =>
		`${wanted}:1 is needed to read it well. ${inkFrom ? `Its ink comes from ${partWords(inkFrom)}` : 'Nobody sets its ink'}, ${fillFrom ? `its fill from ${partWords(fillFrom)}` : 'and it stands on paper'}.`,
	weight: ({ ratio }: Args) => 1 - ratio / 21
});

const shortened = (text: string) => text.trim().slice(0, 24);

/** One finding for each pair of parts that set ink and fill. */
export function findContrast(trial: Trial): Finding[] {
	return groupsOf(trial).map(({ tried, worst: { ratio, wanted, cell }, count }): Finding => {
		const { r, c, text } = tried.resolved.structure.table.cells[cell]!;
		const trace = traceCell(tried.resolved, r, c);
		const ink = trace.get('text.ink')?.[0];
		const fill = trace.get('fill.ink')?.[0];
		const tint = trace.get('fill.tint')?.[0];
		const place = ink?.part ?? fill?.part ?? 'ground';
		return found(
			lowContrastOf,
			{
				text: shortened(text),
				ratio,
				wanted,
				more: count - 1,
				table: tried.title,
				...(ink && { inkFrom: ink.part }),
				...(fill && { fillFrom: fill.part })
			},
			{
				place,
				at: { key: tried.key, cell },
				fixes: candidates(trial, tried, cell, wanted, { place, fill, tint }).filter(
					(fix) => isOwn(trial, fix) && contrastWith(trial, tried, cell, fix) >= wanted
				)
			}
		);
	});
}

/** The same in a table as it looks in its file. */
export const findLowContrast = (table: Table, appearance: Appearance): Finding[] =>
	lowContrast(table.cells, appearance).map(({ cell, cells, ratio, wanted }) => {
		const { r, c, text } = table.cells[cell]!;
		return found(lowContrastOf, { text: shortened(text), ratio, wanted, more: cells - 1 }, { r, c });
	});

interface Setters {
	readonly place: string;
	readonly fill: Decided | undefined;
	readonly tint: Decided | undefined;
}

/** What might help: the full tint where the fill's ink and its tint come from different parts, and the ink of the house that reads best. */
function candidates(trial: Trial, tried: Tried, cell: number, wanted: number, { place, fill, tint }: Setters): Fix[] {
	const fixes: Fix[] = [];
	if (fill && tint && tint.part !== fill.part && Number(tint.value) < 1)
		fixes.push({
			words: `Full tint in ${partWords(fill.part)}`,
			leaves: [{ place: fill.part, path: 'fill.tint', value: 1 }]
		});
	const look = tried.appearance.looks[tried.appearance.cellLook[cell]!]!;
	const background = look.fill === undefined || look.fill === 'none' ? PAPER : look.fill;
	const inks = { ...trial.house.inks, ...Object.fromEntries(trial.flat.inks) };
	const readable = (colours: readonly (readonly [name: string, ink: string, hex: string])[]) =>
		colours
			.map(([name, ink, hex]) => ({ name, ink, ratio: contrast(toHex(hex) ?? PAPER, background) }))
			.filter(({ ratio }) => ratio >= wanted)
			.sort((a, b) => b.ratio - a.ratio)[0];
	// An ink of the house where one reads well enough, else plain black or white.
	const best =
		readable(Object.entries(inks).map(([name, hex]) => [name, name, hex])) ??
		readable([
			['black', BLACK, BLACK],
			['white', PAPER, PAPER]
		]);
	if (best)
		fixes.push({
			words: `Text of ${partWords(place)} in ${best.name}`,
			leaves: [{ place, path: 'text.ink', value: best.ink }]
		});
	return fixes;
}

/** Whether the style itself can be changed so: touches and rules of a base cannot. */
const isOwn = ({ style }: Trial, fix: Fix): boolean =>
	fix.leaves!.every(
		({ place }) =>
			place !== 'touch' && (!place.startsWith('rule:') || !!style.rules?.some(({ name }) => name === place.slice(5)))
	);
