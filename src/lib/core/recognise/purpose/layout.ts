import { plural } from '../../words.ts';
import { isProse } from './cells.ts';
import { isHeader } from '../../roles/index.ts';
import { NOT, type Clues, type Verdict } from './purpose.ts';

/** Frames have no more cells. */
const MOST_CELLS = 100;

/** A single cell, or a frame around other tables. */
export function frame({ grid, things }: Clues): Verdict {
	if (grid.cells.length > MOST_CELLS) return NOT;
	if (grid.cells.length === 1) return { sure: 0.95, why: ['a single cell, which frames what stands in it'] };
	const filled = grid.cells.flatMap(({ text }, i) => (text.trim() || things(i).inner || things(i).pictures ? [i] : []));
	const inner = filled.filter((i) => things(i).inner).length;
	if (inner && (inner * 2 >= filled.length || grid.rows * grid.columns <= 4))
		return { sure: 0.9, why: [`${plural(inner, 'cell holds', 'cells hold')} other tables`] };
	return NOT;
}

const MOST_ROWS = 60;

/** Pictures or whole paragraphs side by side, or one row or column of such; lines that are missing prove nothing alone. */
export function layout({ grid, facts, asData, things, isPlain }: Clues): Verdict {
	if (grid.rows > MOST_ROWS) return NOT;
	const cells = grid.cells.map(({ c, text }, i) => ({ c, text: text.trim(), pictures: things(i).pictures ?? 0 }));
	const filled = cells.filter(({ text, pictures }) => text || pictures);
	if (filled.length === 0) return NOT;
	const pictured = filled.filter(({ pictures }) => pictures);
	const prose = filled.filter(({ text }) => isProse(text));
	const share = (some: readonly unknown[]) => some.length / filled.length;
	const isOneLine = grid.rows === 1 || grid.columns === 1;
	const hasFigures = facts.some(({ hasAmount }) => hasAmount);
	const hasHeader = asData.rows.some(({ is }) => isHeader(is));
	// Pictures in one column of a table with a header are what its rows are of.
	const isGallery = new Set(pictured.map(({ c }) => c)).size > 1 || isOneLine || grid.columns <= 2;
	if (pictured.length && share(pictured) >= 0.3 && isGallery && !(hasHeader && hasFigures))
		return { sure: 0.85, why: [`${plural(pictured.length, 'cell is a picture', 'cells are pictures')}`] };
	if (isOneLine && prose.length && share(prose) >= 0.5)
		return { sure: 0.85, why: [`whole paragraphs in one ${grid.rows === 1 ? 'row' : 'column'}`] };
	if (grid.columns <= 3 && grid.rows <= 3 && prose.length >= 2 && share(prose) >= 0.6 && isPlain() !== false)
		return { sure: 0.75, why: ['whole paragraphs side by side, without lines and fills'] };
	if (grid.rows === 1 && !hasFigures)
		return { sure: isPlain() ? 0.8 : 0.6, why: ['a single row of texts, which names nothing below it'] };
	return NOT;
}
