import { InputError } from '../../../core/errors.ts';
import type { DocumentState, DrawingState } from '../../../workbench/state.ts';
import type { RereadRows } from '../../database.ts';
import { reread } from '../../drawings/drawings.ts';
import type { Deed } from './deed.ts';

/** Schedules of drawings are read again. */
export const rereadSchedules: Deed = {
	label: () => 'read again',
	async do(trx, _run, { name, document, state }) {
		if (document.kind !== 'svg')
			throw new InputError('request', `“${name}” is no drawing, so it has no schedules to read again.`);
		const again = await reread(trx, document, name, state);
		if (!again) return { before: { rows: [] }, tables: 0 };
		const { tables, drawing } = again.state;
		return { change: { tables, drawing }, before: { rows: again.rows }, tables: again.tables };
	},
	back(state, before) {
		const drawing = rowsBack(state, (before as { rows: readonly RereadRows[] }).rows);
		return drawing && { tables: {}, drawing };
	}
};

/** A drawing whose schedules have the rows again that a run changed; what people changed since stays. */
function rowsBack({ drawing }: DocumentState, rows: readonly RereadRows[]): DrawingState | undefined {
	let count = 0;
	const placed = drawing?.placed?.map((table) => {
		const own = rows.find(({ id }) => id === table.id);
		if (!own || JSON.stringify(own.is) !== JSON.stringify(table.rows)) return table;
		count++;
		return { ...table, rows: own.was };
	});
	return placed && count ? { ...drawing, placed } : undefined;
}
