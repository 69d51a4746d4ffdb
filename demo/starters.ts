import { parseFormula } from '../src/lib/core/values/formula-text.ts';
import { joinCells } from '../src/lib/core/work/join.ts';
import { workOfRows } from '../src/lib/core/work/begin.ts';
import { workedOut } from '../src/lib/core/work/working.ts';
import { isCovered, type WorkTable } from '../src/lib/core/work/table.ts';
import type { Summary } from '../src/lib/core/values/summary.ts';

export interface DemoStarter {
	readonly name: string;
	readonly category: string;
	readonly description: string;
	readonly style: string;
	readonly work: WorkTable;
}

const withTotal = (work: WorkTable, r: number, c: number, total: Summary): WorkTable => ({
	...work,
	rows: work.rows.map((row, y) =>
		y === r
			? { ...row, cells: row.cells.map((slot, x) => (x === c && !isCovered(slot) ? { ...slot, total } : slot)) }
			: row
	)
});
const withFormula = (work: WorkTable, c: number, formula: string): WorkTable => ({
	...work,
	columns: work.columns.map((column, x) =>
		x === c ? { ...column, kind: 'money', formula: parseFormula(formula) } : column
	)
});

function bulbOrder(): WorkTable {
	const rows = workOfRows([
		['Bulb', 'Bed', 'Bulbs', 'Price each', 'Cost', 'Planted by'],
		['Snowdrop', 'N-01', '1,200', '€ 0.18', '', '2031-10-04'],
		['Winter aconite', 'N-02', '800', '€ 0.22', '', '2031-10-04'],
		['Crocus, early', 'Lawn', '2,500', '€ 0.09', '', '2031-10-11'],
		['Wild daffodil', 'Orchard', '1,600', '€ 0.31', '', '2031-10-18'],
		['Snake’s-head', 'Meadow', '900', '€ 0.27', '', '2031-10-25'],
		['Total', '', '', '', '', '']
	]);
	const roles = rows.rows.map((row, r) => ({
		...row,
		role: r === 0 ? ('header:1' as const) : r === 6 ? ('total' as const) : ('body' as const)
	}));
	const work = withTotal(
		withTotal(withFormula({ ...rows, rows: roles, firstColumns: 1 }, 4, 'Bulbs × Price each'), 6, 2, 'sum'),
		6,
		4,
		'sum'
	);
	return workedOut(work).work;
}

function watering(): WorkTable {
	const rows = workOfRows([
		['Who waters what', '', '', ''],
		['Place', 'Morning', 'Evening', 'Note'],
		['Lily court', '', '', ''],
		['Fern grotto', '', '', 'mist only'],
		['Alpine bench', '', '', 'never overhead']
	]);
	const roles = (['title', 'header:1', 'body', 'body', 'body'] as const).map((role, r) => ({ ...rows.rows[r]!, role }));
	return joinCells({ ...rows, rows: roles, firstColumns: 1 }, { top: 0, bottom: 0, start: 0, end: 3 }, 'one');
}

/** Tables that the demo house begins others with. */
export const DEMO_STARTERS: readonly DemoStarter[] = [
	{
		name: 'Bulb order',
		category: 'Orders',
		description: 'What is planted where, with the cost worked out and summed.',
		style: 'Season Ledger',
		work: bulbOrder()
	},
	{
		name: 'Watering round',
		category: 'Rounds',
		description: 'One row a place, filled in by hand.',
		style: 'Quiet Lines',
		work: watering()
	}
];
