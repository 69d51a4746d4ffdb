import type { Appearance } from '../core/cascade/look.ts';
import type { CellContent } from '../core/table/content.ts';
import type { Cell, Grid } from '../core/table/grid.ts';

/** How a table shows where nobody says anything: one empty look, no line. */
export function bareAppearance(grid: Grid): Appearance {
	const across = new Int32Array((grid.rows + 1) * grid.columns);
	const down = new Int32Array(grid.rows * (grid.columns + 1));
	for (const index of grid.merged) {
		const { r, c, rows, cols } = grid.cells[index]!;
		for (let y = r + 1; y < r + rows; y++) for (let x = c; x < c + cols; x++) across[y * grid.columns + x] = -1;
		for (let y = r; y < r + rows; y++) for (let x = c + 1; x < c + cols; x++) down[y * (grid.columns + 1) + x] = -1;
	}
	return { cellLook: new Int32Array(grid.cells.length), looks: [{}], across, down, lines: [null] };
}

/** A text as the content of a cell: a paragraph a line. The same text gives the same content. */
function contentOfTexts(): (text: string) => readonly CellContent[] {
	const known = new Map<string, readonly CellContent[]>();
	return (text) => {
		let content = known.get(text);
		if (!content) known.set(text, (content = text.split('\n').map((line) => ({ runs: line ? [{ text: line }] : [] }))));
		return content;
	};
}

/** Cells of plain text as content; cells that say the same share it. */
export function plainContent(cells: readonly Cell[]): (readonly CellContent[])[] {
	const contentOf = contentOfTexts();
	return cells.map(({ text }) => contentOf(text));
}

/** The same for more cells than anybody looks at: the content of each is made when it is looked at. */
export function plainContentWhenSeen(cells: readonly Cell[]): readonly (readonly CellContent[])[] {
	const contentOf = contentOfTexts();
	const contentAt = (key: string | symbol) => {
		const cell = typeof key === 'string' ? cells[Number(key)] : undefined;
		return cell && contentOf(cell.text);
	};
	return new Proxy<readonly (readonly CellContent[])[]>([], {
		get: (list, key) => (key === 'length' ? cells.length : (contentAt(key) ?? (Reflect.get(list, key) as unknown))),
		has: (list, key) => contentAt(key) !== undefined || Reflect.has(list, key),
		getOwnPropertyDescriptor(list, key) {
			const value = contentAt(key);
			return value
				? { value, configurable: true, enumerable: true, writable: false }
				: Reflect.getOwnPropertyDescriptor(list, key);
		}
	});
}
