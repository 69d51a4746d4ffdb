import type { WorkTable } from '../../core/work/table.ts';
import { workedOut } from '../../core/work/working.ts';
import { amountText } from '../../core/values/figure.ts';

/**
 * Puts what a worked-out cell shows into a data element with its value in full (HTML Standard §4.5.13), so that programs
 * need not read it back from its text; by slot, other cells as they are.
 */
export function valuesOf(work: WorkTable | undefined): (r: number, c: number, markup: string) => string {
	const values = new Map(
		work
			? workedOut(work).worked.flatMap(({ r, c, figure }) => (figure ? [[`${r} ${c}`, amountText(figure)]] : []))
			: []
	);
	return (r, c, markup) => {
		const value = values.get(`${r} ${c}`);
		return value === undefined || !markup ? markup : `<data value="${value}">${markup}</data>`;
	};
}
