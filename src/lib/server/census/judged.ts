import type { Kysely } from 'kysely';
import { InputError } from '../../core/errors.ts';
import {
	judge,
	LEVELS,
	mendingOf,
	policyRuleNamed,
	withStylesCalled,
	wantedWords,
	type Level,
	type Policy
} from '../../core/policy/policy.ts';
import type { TableState } from '../../workbench/state.ts';
import type { Database } from '../database.ts';
import { openById } from '../documents/open.ts';
import { documentRow, DOCUMENTS, stepsOf, type Db } from '../documents/rows.ts';
import { putStep } from '../documents/steps.ts';
import { loadHouse } from '../house/house.ts';
import { isUuid } from '../http/requests.ts';
import { Dresser } from '../styles/dresser.ts';
import { touchCells } from '../runs/deeds/touch.ts';
import { ruleAs } from './among.ts';
import { subjectOf } from './count.ts';

/** A table that a policy has something against. */
export interface JudgedTable {
	readonly index: number;
	readonly faults: readonly {
		readonly rule: string;
		readonly words: string;
		readonly r?: number;
		readonly c?: number;
	}[];
}

/** A rule that something is found by, with what can be done about it, in words; null where only a person can. */
export interface JudgedRule {
	readonly rule: string;
	readonly level: Level;
	readonly wanted: string;
	readonly mend: string | null;
}

export interface JudgedDocument {
	/** Whether the house wants anything. */
	readonly isHeld: boolean;
	readonly rules: readonly JudgedRule[];
	readonly tables: readonly JudgedTable[];
}

async function styleNames(db: Db): Promise<ReadonlyMap<string, string>> {
	const styles = await db.selectFrom('styles').select(['id', 'name']).execute();
	return new Map(styles.map(({ id, name }) => [id, name]));
}

const inNames = (policy: Policy, names: ReadonlyMap<string, string>): Policy =>
	withStylesCalled(policy, (style) => names.get(style) ?? (isUuid(style) ? 'a style that is gone' : style));
/** A house's policy with styles called by their names; a style that is gone says so. */
export const policyInNames = async (db: Db, policy: Policy): Promise<Policy> => inNames(policy, await styleNames(db));

/** What the house's policy has against the tables of a document as they stand now. */
export async function judgeDocument(db: Db, id: string): Promise<JudgedDocument> {
	await documentRow(db, id);
	const { policy } = await loadHouse(db);
	if (!policy?.rules.length) return { isHeld: false, rules: [], tables: [] };
	const names = await styleNames(db);
	const named = inNames(policy, names);
	/** What can be done is worn in styles that are here. */
	const here = withStylesCalled(policy, (style) => names.get(style));
	const dresser = await Dresser.of(db);
	const { document, state } = await openById(db, id);
	const tables = document.tables.flatMap((entry): JudgedTable[] => {
		const subject = subjectOf(dresser, entry, state.tables[entry.index]);
		const wears = subject.wears === undefined ? undefined : names.get(subject.wears);
		const faults = judge(named, { ...subject, wears });
		return faults.length
			? [{ index: entry.index, faults: faults.map(({ level: _l, wanted: _w, ...fault }) => fault) }]
			: [];
	});
	const found = new Set(tables.flatMap(({ faults }) => faults.map(({ rule }) => rule)));
	return {
		isHeld: true,
		rules: named.rules
			.filter(({ rule }) => found.has(rule))
			.sort((a, b) => LEVELS.indexOf(b.level) - LEVELS.indexOf(a.level))
			.map((wanted) => ({
				rule: wanted.rule,
				level: wanted.level,
				wanted: wantedWords(wanted),
				mend: policyRuleNamed(wanted.rule)?.mend?.words(ruleAs(here, wanted.rule) as never) ?? null
			})),
		tables
	};
}

/** Puts some tables of a document right by a rule, as one step that can be undone. */
export async function mendTables(
	db: Kysely<Database>,
	id: string,
	{
		version,
		rule: name,
		tables: only
	}: { readonly version: number; readonly rule: string; readonly tables: readonly number[] }
) {
	return db.transaction().execute(async (trx) => {
		const standing = await DOCUMENTS.lock(trx, id, version);
		const { policy } = await loadHouse(trx);
		if (!policy?.rules.some(({ rule }) => rule === name))
			throw new InputError('request', `The house’s policy has no rule “${name}” any more.`, '/rule');
		const names = await styleNames(trx);
		const rule = ruleAs(
			withStylesCalled(policy, (style) => (names.has(style) ? style : undefined)),
			name
		);
		const { document, state, name: called } = await openById(trx, id);
		const dresser = await Dresser.of(trx);
		const label = `policy: ${wantedWords(ruleAs(inNames(policy, names), name)).replace(/\.$/, '')}`.slice(0, 200);
		const styled = only.flatMap((index): [number, TableState][] => {
			const entry = document.tables[index];
			const own = state.tables[index];
			const mending = entry && mendingOf(rule, subjectOf(dresser, entry, own));
			if (!mending || !('style' in mending)) return [];
			const { edition: _edition, pinned: _pinned, cleared: _cleared, ...rest } = own ?? {};
			return [[index, { ...rest, style: mending.style }]];
		});
		const run = { style_id: null, style_name: label, edition: null, settings: { mend: rule } };
		const { change } = await touchCells.do(trx, run, { id, name: called, document, state, only });
		const changed = { ...Object.fromEntries(styled), ...change?.tables };
		if (!Object.keys(changed).length)
			throw new InputError('request', 'There is nothing to put right there any more.', '/tables');
		const worn = await putStep(trx, id, standing, label, { ...state, tables: { ...state.tables, ...changed } });
		return { ...worn, steps: await stepsOf(trx, id) };
	});
}
