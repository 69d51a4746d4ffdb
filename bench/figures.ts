import { recognisedTable } from '../src/lib/core/recognise/table.ts';
import { createGrid } from '../src/lib/core/table/grid.ts';
import { figureOf } from '../src/lib/core/values/figure.ts';
import { parseFormula } from '../src/lib/core/values/formula-text.ts';
import { parseValue } from '../src/lib/core/values/parse.ts';
import { typed } from '../src/lib/core/work/cells.ts';
import { workOf } from '../src/lib/core/work/convert.ts';
import { workedOut } from '../src/lib/core/work/working.ts';
import type { WorkTable } from '../src/lib/core/work/table.ts';
import { longList } from './csv.ts';
import { median, report, timed } from './measure.ts';

const ROWS = 2_000;
const FORMULAS = [
	'Price × Count',
	'F1 × 19 %',
	'F1 + F2',
	'F3 ÷ 3',
	'F4 × 3',
	'F3 − F5',
	'Count × 2',
	'F7 + 1',
	'F1 ÷ Count',
	'round (F4; 1)'
];

function workedTable(): WorkTable {
	const head = ['Plant', 'Count', 'Price', ...FORMULAS.map((_, i) => `F${i + 1}`)];
	const rows = Array.from({ length: ROWS }, (_, i) => [
		`Plant ${i}`,
		String(1 + (i % 97)),
		`€ ${1 + (i % 13)}.${10 + (i % 80)}`,
		...FORMULAS.map(() => '')
	]);
	const work = workOf(recognisedTable(createGrid([head, ...rows])).table);
	const columns = work.columns.map((column, c) =>
		c < 3 ? column : { ...column, formula: parseFormula(FORMULAS[c - 3]!) }
	);
	return { ...work, columns };
}

/** Reading the figures of a long list beside parsing its texts, and working out a table of 2,000 rows by 10 formulas. */
export async function benchFigures(): Promise<void> {
	const texts = new TextDecoder()
		.decode(longList())
		.split('\r\n')
		.flatMap((line) => line.split(','));
	const parse = median(await timed(() => texts.forEach((text) => parseValue(text)), 5, 2));
	const read = median(await timed(() => texts.forEach((text) => figureOf(parseValue(text))), 5, 2));
	report(
		'figures of 100,000 × 12',
		read,
		parse,
		2,
		`${read.toFixed(0)} ms, its texts parsed alone ${parse.toFixed(0)} ms`
	);

	const table = workedTable();
	/** The same table, of which nothing is known yet. */
	const anew = () => ({
		...table,
		columns: [...table.columns],
		rows: table.rows.map((row) => ({ ...row, cells: row.cells.map((cell) => ({ ...cell })) }))
	});
	const whole = median(await timed(() => workedOut(anew()), 11, 3));
	let work = workedOut(table).work;
	let n = 0;
	const keystroke = median(
		await timed(() => (work = workedOut(typed(work, 1 + (n % ROWS), 1, String((n += 7) % 97))).work), 31, 3)
	);
	const ok = (ms: number, most: number) => (ms <= most ? 'within ' : 'OVER   ');
	console.log(
		`${ok(whole, 50)} ${ROWS} rows × 10 formulas worked out for the first time: ${whole.toFixed(0)} ms (at most 50)`
	);
	console.log(`${ok(keystroke, 50)} and again after an edit: ${keystroke.toFixed(1)} ms (at most 50)`);
}
