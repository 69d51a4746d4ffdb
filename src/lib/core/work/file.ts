import { InputError } from '../errors.ts';
import { isBody } from '../roles/index.ts';
import type { TableFile } from '../table/file.ts';
import { amountText } from '../values/figure.ts';
import { formulaFault, type Formula } from '../values/formula.ts';
import { formulaText, parseFormula } from '../values/formula-text.ts';
import { groupingIn } from '../values/written.ts';
import { withKinds } from './begin.ts';
import { figureIn } from './figures.ts';
import { workedOut } from './working.ts';
import { columnNames } from './names.ts';
import { asTyped, isCovered, tidy, type Slot, type WorkCell, type WorkTable } from './table.ts';

/** Whether a table file says how its figures come to be. */
export const saysFigures = ({ numbers, columns, formulas, totals }: TableFile): boolean =>
	!!(numbers ?? formulas ?? totals) || !!columns?.some(({ formula }) => formula !== undefined);

/**
 * A table with the formulas, totals and marks of its file, worked out (figures.md, *table files*). Throws InputError, with
 * the place, for a formula that cannot be read, for a column that is not there and for a cell that is covered.
 */
export function withFileFigures(work: WorkTable, file: TableFile): WorkTable {
	const { numbers, columns = [], formulas = [], totals = [] } = file;
	const names = columnNames(work);
	const formulaAt = (text: string, where: string): Formula => {
		try {
			const formula = parseFormula(text, names);
			const fault = formulaFault(formula, names);
			if (fault) throw new InputError('formula', fault);
			return formula;
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			throw new InputError('formula', `“${text}” cannot be worked out: ${error.message}`, where);
		}
	};
	const rows = work.rows.map(({ cells, ...row }) => ({
		...row,
		cells: cells.map((slot): Slot => (isCovered(slot) ? slot : asTyped(slot)))
	}));
	const put = (r: number, c: number, where: string, change: Pick<WorkCell, 'formula' | 'total'>) => {
		const slot = rows[r]?.cells[c];
		if (!slot || isCovered(slot))
			throw new InputError('table', `There is no cell in row ${r + 1}, column ${c + 1}.`, where);
		rows[r]!.cells[c] = { ...slot, ...change };
	};
	formulas.forEach(({ r, c, formula }, i) =>
		put(r, c, `/formulas/${i}`, { formula: formulaAt(formula, `/formulas/${i}/formula`) })
	);
	totals.forEach(({ r, c, is }, i) => {
		put(r, c, `/totals/${i}`, { total: is });
		if (!isBody(rows[r]!.role)) return;
		if (file.rows)
			throw new InputError(
				'table',
				`Row ${r + 1} is a body row; what a column comes to stands in another, such as a total.`,
				`/totals/${i}`
			);
		rows[r] = { ...rows[r]!, role: 'total' };
	});
	const next: WorkTable = {
		...work,
		rows,
		columns: work.columns.map(({ formula: _, ...column }, c) => {
			const text = columns[c]?.formula;
			return text === undefined ? column : { ...column, formula: formulaAt(text, `/columns/${c}/formula`) };
		}),
		...(numbers && { mark: numbers.decimal, isMarkSaid: true as const }),
		...(numbers?.grouping && { grouping: numbers.grouping })
	};
	return withKindsFound(workedOut(next).work, work, (c) => columns[c]?.kind === undefined);
}
/** What columns are worked out to be, where their file does not say it. */
function withKindsFound(work: WorkTable, before: WorkTable, isOpen: (c: number) => boolean): WorkTable {
	const isFound = (c: number) => !!work.columns[c]!.formula && isOpen(c);
	const guessed = work.columns.map((column, c) => (isFound(c) ? { ...column, isGuessed: true as const } : column));
	const { columns } = withKinds({ ...work, columns: guessed }, before);
	return {
		...work,
		columns: work.columns.map((column, c) => (isFound(c) ? { ...column, kind: columns[c]!.kind } : column))
	};
}

/** What a table file says of a table's figures: marks where somebody said them, formulas, totals, what is worked out in full. */
export function figuresForFile(given: WorkTable): Partial<TableFile> {
	const { work, worked } = workedOut(given);
	const each = <T>(get: (cell: WorkCell) => T | undefined) =>
		work.rows.flatMap(({ cells }, r) =>
			cells.flatMap((slot, c) => {
				const value = isCovered(slot) ? undefined : get(slot);
				return value === undefined ? [] : [{ r, c, value }];
			})
		);
	const formulas = each(({ formula }) => formula && formulaText(formula));
	const totals = each(({ total }) => total);
	const figures = worked.flatMap(({ r, c, figure }) =>
		figure ? [{ r, c, amount: amountText(figure), measure: figure.measure }] : []
	);
	const texts = each((cell) => (figureIn(cell, work.mark) ? cell.text : undefined)).map(({ value }) => value);
	const isSaid = work.isMarkSaid ?? work.grouping !== undefined;
	return tidy({
		...(isSaid && { numbers: { decimal: work.mark, grouping: work.grouping ?? groupingIn(texts, work.mark) } }),
		...(formulas.length && { formulas: formulas.map(({ r, c, value }) => ({ r, c, formula: value })) }),
		...(totals.length && { totals: totals.map(({ r, c, value }) => ({ r, c, is: value })) }),
		...(figures.length && { figures })
	});
}

/** A table file with what it says of the figures of the work that its table is. */
export function withFigures(file: TableFile, work: WorkTable): TableFile {
	const columns = file.columns?.map((column, c) => {
		const formula = work.columns[c]?.formula;
		return formula ? { ...column, formula: formulaText(formula) } : column;
	});
	return { ...file, ...(columns && { columns }), ...figuresForFile(work) };
}
