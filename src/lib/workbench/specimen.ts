import { recognisedTable } from '../core/recognise/table.ts';
import { createGrid, type Table } from '../core/table/grid.ts';
import type { CellContent } from '../core/table/content.ts';

export interface Specimen {
	readonly table: Table;
	readonly content: readonly (readonly CellContent[])[];
}

/** The built-in specimen: a small table that has every part, every row role and every kind of column. */
export function builtInSpecimen(): Specimen {
	const texts = [
		['Garden in figures', null, null, null, null, null, null, null],
		['', '', 'Visitors', null, 'Beds', 'Takings', '', ''],
		['Place', 'Code', '2031', 'of all', 'm²', '€', 'Opens', 'Remarks'],
		['Under glass', '', '', '', '', '', '', ''],
		['Lily court', 'GH-01', '19 911', '56.5 %', '412.5 m²', '61 370.00', '2031-03-01', '12 pools'],
		['Fern grotto', 'GH-02', '8 872', '25.1 %', '96.0 m²', '24 118.50', '2031-04-12', 'shade'],
		['Subtotal', '', '28 783', '81.6 %', '508.5 m²', '85 488.50', '', ''],
		['Outside', '', '', '', '', '', '', ''],
		['Alpine bench', 'OD-01', '4 395', '12.4 %', '88.0 m²', '9 120.75', '2031-05-02', '40'],
		['Path garden', 'OD-02', '2 105', '6.0 %', '1 240.0 m²', '3 310.25', '2031-05-16', '2031-06-01'],
		['Subtotal', '', '6 500', '18.4 %', '1 328.0 m²', '12 431.00', '', ''],
		['Total', '', '35 283', '100.0 %', '1 836.5 m²', '97 919.50', '', ''],
		['Note: the grotto was closed for eleven days.', null, null, null, null, null, null, null]
	];
	const spans = [
		{ r: 0, c: 0, rows: 1, cols: 8 },
		{ r: 1, c: 2, rows: 1, cols: 2 },
		{ r: 12, c: 0, rows: 1, cols: 8 }
	];
	const recognised = recognisedTable(createGrid(texts, spans)).table;
	const table: Table = { ...recognised, lastColumns: 1 };
	return { table, content: table.cells.map(({ text }) => [{ runs: [{ text }] }]) };
}
