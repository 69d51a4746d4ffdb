import { createGrid, type Grid, type Span } from '../../../../src/lib/core/table/grid.ts';

/** The cells of rows in which `<` goes on from the cell before and `^` from the one above. */
export function gridOf(rows: readonly (readonly string[])[]): Grid {
	const spans: Span[] = [];
	const texts = rows.map((row) => row.map((text) => (text === '<' || text === '^' ? null : text)));
	rows.forEach((row, r) =>
		row.forEach((text, c) => {
			if (text === '<' || text === '^') return;
			let cols = 1;
			while (row[c + cols] === '<') cols++;
			let height = 1;
			while (rows[r + height]?.[c] === '^') height++;
			if (cols > 1 || height > 1) spans.push({ r, c, rows: height, cols });
		})
	);
	return createGrid(texts, spans);
}
