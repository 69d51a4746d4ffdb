import type { Transaction } from 'kysely';
import { varyingSetting } from '../../../core/census/settings.ts';
import type { Hex } from '../../../core/colour.ts';
import { InputError } from '../../../core/errors.ts';
import { inkNames } from '../../../core/house.ts';
import { mendingOf } from '../../../core/policy/policy.ts';
import type { Touch } from '../../../core/table/grid.ts';
import { withTouches } from '../../../core/table/touches.ts';
import { retouched } from '../../../core/work/convert.ts';
import { patchBetween } from '../../../core/work/patch.ts';
import type { DocumentTable } from '../../../formats/document.ts';
import type { TableState } from '../../../workbench/state.ts';
import { readState } from '../../../workbench/stored.ts';
import { subjectOf } from '../../census/count.ts';
import type { Database, RunSettings, RunTouched } from '../../database.ts';
import { insertStep, rememberWork, workAt } from '../../documents/replay.ts';
import { Dresser } from '../../styles/dresser.ts';
import { tablesOfRun, type Deed, type RunFacts } from './deed.ts';

/** As many touches as a table may have. */
const MOST = 20_000;

/** The touches of a table after a run has brought a setting to a value, or mended what a rule flags; undefined: as they are. */
export function touchesAfter(
	dresser: Dresser,
	{ bring, mend }: RunSettings,
	entry: DocumentTable,
	own: TableState | undefined
): readonly Touch[] | undefined {
	// Nothing but text is to be seen of it, touches neither.
	if (own?.cleared && !own.style) return undefined;
	const subject = subjectOf(dresser, entry, own);
	const over = (more: readonly Touch[]) => {
		if (!more.length) return undefined;
		const all = withTouches(subject.touches, more);
		if (all.length > MOST)
			throw new InputError(
				'too-large',
				`Table ${entry.index + 1} would have ${all.length} cells that are set one by one; it may have ${MOST}. Give it a style instead.`
			);
		return all;
	};
	if (bring) {
		const names = inkNames(dresser.house);
		const name = (ink: Hex) => names.get(ink.toUpperCase()) ?? ink;
		return over(varyingSetting(bring.setting)?.bring(subject, bring.value, name) ?? []);
	}
	const mending = mend && mendingOf(mend, subject);
	if (!mending || 'style' in mending) return undefined;
	return 'touches' in mending ? over(mending.touches) : [];
}

/** Cells are touched, or touches taken off. */
export const touchCells: Deed = {
	label: ({ style_name }) => style_name,
	async do(trx, run, of) {
		const dresser = await Dresser.of(trx);
		const touched: Record<number, RunTouched> = {};
		const tables: Record<number, TableState> = {};
		for (const entry of tablesOfRun(of, run.settings)) {
			const own = of.state.tables[entry.index] ?? {};
			const touches = touchesAfter(dresser, run.settings, entry, own);
			if (!touches) continue;
			const is = own.work === undefined ? { touches } : { work: await touchWork(trx, run, of.id, own.work, touches) };
			if ('work' in is && is.work === own.work) continue;
			touched[entry.index] = { was: touchState(own), is };
			tables[entry.index] = { ...own, ...is };
		}
		const unreadable = Object.entries(readState({ tables }).tables).find(([, own]) => own.unreadable);
		if (unreadable)
			throw new InputError(
				'request',
				`Table ${Number(unreadable[0]) + 1} cannot be set so: ${unreadable[1].unreadable!.why}.`
			);
		const count = Object.keys(touched).length;
		return { ...(count && { change: { tables } }), before: { touched }, tables: count };
	},
	back({ tables }, before) {
		const { touched } = before as { touched: Record<number, RunTouched> };
		const restored = Object.entries(touched).flatMap(([index, { was, is }]): [string, TableState][] => {
			const own = tables[Number(index)] ?? {};
			if (JSON.stringify(touchState(own)) !== JSON.stringify(touchState(is))) return [];
			const { touches: _touches, work: _work, ...rest } = own;
			return [[index, { ...rest, ...was }]];
		});
		return restored.length ? { tables: Object.fromEntries(restored) } : undefined;
	}
};

const touchState = ({ touches, work }: TableState): RunTouched['was'] => ({
	...(touches && { touches }),
	...(work !== undefined && { work })
});

/** The step of a table's work with these touches, after the one at which it stands; that one where nothing changes. */
async function touchWork(
	trx: Transaction<Database>,
	{ style_name }: RunFacts,
	document: string,
	parent: number,
	touches: readonly Touch[]
): Promise<number> {
	const before = await workAt(trx, parent);
	const after = retouched(before, touches);
	if (after === before) return parent;
	const step = await insertStep(trx, {
		document_id: document,
		parent,
		label: `run: ${style_name}`.slice(0, 200),
		patch: patchBetween(before, after),
		whole: after
	});
	rememberWork(step, after);
	return step;
}
