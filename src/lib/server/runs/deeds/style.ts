import { InputError } from '../../../core/errors.ts';
import type { TableState } from '../../../workbench/state.ts';
import { tablesOfRun, type Deed } from './deed.ts';

/** Tables wear a style. */
export const giveStyle: Deed = {
	label: ({ style_name }) => style_name,
	async do(_trx, { style_id, style_name, edition, settings }, of) {
		if (!style_id) throw new InputError('style', `“${style_name}” went from the Stylebook meanwhile.`);
		const dressed = tablesOfRun(of, settings);
		const { takesAll: _takesAll, ...same } = settings;
		const before = Object.fromEntries(dressed.map(({ index }) => [index, of.state.tables[index] ?? {}]));
		const tables = Object.fromEntries(
			Object.entries(before).map(
				([index, { edition: _edition, pinned: _pinned, cleared: _cleared, ...own }]): [string, TableState] => [
					index,
					{ ...own, ...same, style: style_id, ...(edition !== null && { edition }) }
				]
			)
		);
		return { change: { tables }, before, tables: dressed.length };
	},
	back({ tables }, before, run) {
		const restored = Object.entries(before as Record<number, TableState>).flatMap(
			([index, was]): [string, TableState][] => {
				const { style, edition, pinned: _pinned, ...own } = tables[Number(index)] ?? {};
				if (style !== run.style_id || (edition ?? null) !== run.edition) return [];
				return [[index, { ...own, ...wear(was) }]];
			}
		);
		return restored.length ? { tables: Object.fromEntries(restored) } : undefined;
	}
};

/** What of a table's state says which style it wears. */
const wear = ({ style, edition, pinned }: TableState): TableState => ({
	...(style !== undefined && { style }),
	...(edition !== undefined && { edition }),
	...(pinned !== undefined && { pinned })
});
