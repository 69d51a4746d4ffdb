import { recognisedTable } from '../core/recognise/table.ts';
import { createGrid, type Table } from '../core/table/grid.ts';
import type { CellContent } from '../core/table/content.ts';

export interface Specimen {
	readonly table: Table;
	readonly content: readonly (readonly CellContent[])[];
}

/** The built-in specimen: a small table that has every part, for a house that has no document yet. */
export function builtInSpecimen(): Specimen {
	const texts = [
		['Garden in figures', null, null, null],
		['', 'Visitors', null, 'Takings'],
		['Place', '2030', '2031', '€'],
		['Under glass', '', '', ''],
		['Lily court', '18 204', '19 911', '61 370.00'],
		['Fern grotto', '9 310', '8 872', '24 118.50'],
		['Subtotal', '27 514', '28 783', '85 488.50'],
		['Outside', '', '', ''],
		['Alpine bench', '4 410', '4 395', '9 120.75'],
		['Path garden', '2 000', '2 105', '3 310.25'],
		['Subtotal', '6 410', '6 500', '12 431.00'],
		['Total', '33 924', '35 283', '97 919.50'],
		['Note: the grotto was closed for eleven days.', null, null, null]
	];
	const spans = [
		{ r: 0, c: 0, rows: 1, cols: 4 },
		{ r: 1, c: 1, rows: 1, cols: 2 },
		{ r: 12, c: 0, rows: 1, cols: 4 }
	];
	const { table } = recognisedTable(createGrid(texts, spans));
	return { table, content: table.cells.map(({ text }) => [{ runs: [{ text }] }]) };
}
