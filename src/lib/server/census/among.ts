import { sql, type RawBuilder } from 'kysely';
import { InputError } from '../../core/errors.ts';
import {
	isFlagged,
	leavesOut,
	policyRuleNamed,
	usualRule,
	type Measures,
	type Policy,
	type WantedRule
} from '../../core/policy/policy.ts';
import type { Purpose } from '../../core/recognise/purpose/kinds.ts';
import { EMPTY_POLICY } from '../../workbench/house.ts';
import type { Db } from '../documents/rows.ts';
import { loadHouse } from '../house/house.ts';

/** Which documents a census is of; all that are not put aside where nothing is said. */
export interface CensusOf {
	readonly kind?: string | undefined;
	readonly documents?: readonly string[] | undefined;
}

/** Some tables of them: those of some groups of looks, those that show values of a setting, or have a finding, or break a rule. */
export type Among =
	| { readonly looks: readonly number[] }
	| { readonly setting: string; readonly values: readonly string[] }
	| { readonly finding: string }
	| { readonly rule: string };

/** A table of a document. */
export interface AmongTable {
	readonly document: string;
	readonly name: string;
	readonly index: number;
	readonly title: string;
	/** Name of the style that it wears. */
	readonly style: string | null;
}

/** The documents of a census, as a query that gives their ids. */
export const documentsOf = ({ kind, documents }: CensusOf): RawBuilder<unknown> => sql`
	select id from documents where removed_at is null and archived_at is null
		${kind === undefined ? sql`` : sql`and kind = ${kind}`}
		${documents === undefined ? sql`` : sql`and id = any(${[...documents]}::uuid[])`}`;

/** The counted tables of a census, each with what it wears; layout tables are no part of it. */
export const tablesOf = (of: CensusOf): RawBuilder<unknown> => sql`
	select t.*, w.style_id, w.edition from census_tables t
	left join wears w on w.document_id = t.document_id and w.table_index = t.table_index
	where t.look is not null and t.document_id in (${documentsOf(of)})`;

const isAmong = (among: Exclude<Among, { rule: string }>): RawBuilder<unknown> =>
	'looks' in among
		? sql`t.look in (select id from census_looks where coalesce(leader, id) = any(${[...among.looks]}::int[]))`
		: 'setting' in among
			? sql`t.shows && array(select id from census_values
				where setting = ${among.setting} and value = any(${[...among.values]}::text[]))`
			: sql`t.findings ? ${among.finding}`;

/** Every counted table as policies are held against it, by what is kept. */
export async function measuredTables(db: Db, of: CensusOf) {
	const { rows } = await sql<{
		document_id: string;
		table_index: number;
		purpose: Purpose;
		measures: Measures;
		style_id: string | null;
	}>`select document_id, table_index, purpose, measures, style_id from (${tablesOf(of)}) t`.execute(db);
	// What a table wears is kept once, and by name it is in a policy's file; in the house, by its id.
	return rows.map(({ measures, style_id, ...table }) => ({
		...table,
		measures: { ...measures, 'wears-style': style_id }
	}));
}

/** The tables that are meant, by document: indices in their order. */
export async function indicesAmong(db: Db, of: CensusOf, among: Among): Promise<Map<string, number[]>> {
	const rows =
		'rule' in among
			? (await flaggedBy(db, of, among.rule)).map(({ document_id, table_index }) => ({ document_id, table_index }))
			: (
					await sql<{ document_id: string; table_index: number }>`
						select document_id, table_index from (${tablesOf(of)}) t where ${isAmong(among)}
						order by document_id, table_index`.execute(db)
				).rows;
	const found = new Map<string, number[]>();
	for (const { document_id, table_index } of rows) {
		const list = found.get(document_id);
		if (list) list.push(table_index);
		else found.set(document_id, [table_index]);
	}
	return found;
}

/** A rule as a policy has it, or as it usually is. Throws InputError where there is none of that name. */
export function ruleAs(policy: Policy, name: string): WantedRule {
	const definition = policyRuleNamed(name);
	if (!definition) throw new InputError('request', `There is no rule “${name}”.`);
	return policy.rules.find(({ rule }) => rule === name) ?? usualRule(definition, 'wish');
}

async function flaggedBy(db: Db, of: CensusOf, name: string) {
	const policy = (await loadHouse(db)).policy ?? EMPTY_POLICY;
	const rule = ruleAs(policy, name);
	return (await measuredTables(db, of)).filter(
		({ purpose, measures }) => !leavesOut(policy, purpose) && isFlagged(rule, measures)
	);
}

/** A value of a setting as it was kept. Throws InputError for what was never kept. */
export function parsed(value: string): unknown {
	try {
		const is: unknown = JSON.parse(value);
		return Array.isArray(is) ? Object.fromEntries(is as [string, unknown][]) : is;
	} catch {
		throw new InputError('request', `“${value}” is no value of a setting.`);
	}
}

/** So many tables are named of those that are meant. */
const NAMED = 200;

/** The tables that are meant, by name, and how many there are. */
export async function namedAmong(
	db: Db,
	of: CensusOf,
	among: Among
): Promise<{ readonly all: number; readonly documents: number; readonly tables: readonly AmongTable[] }> {
	const found = await indicesAmong(db, of, among);
	const all = [...found.values()].reduce((sum, list) => sum + list.length, 0);
	const some = [...found].flatMap(([id, list]) => list.map((index) => [id, index] as const)).slice(0, NAMED);
	const { rows } = await sql<AmongTable>`
		select t.document_id as document, d.name, t.table_index as index, t.title, s.name as style
		from census_tables t join documents d on d.id = t.document_id
		left join wears w on w.document_id = t.document_id and w.table_index = t.table_index
		left join styles s on s.id = w.style_id
		where (t.document_id, t.table_index) in (
			select * from unnest(${some.map(([id]) => id)}::uuid[], ${some.map(([, index]) => index)}::int[])
		) order by d.name, d.id, t.table_index`.execute(db);
	return { all, documents: found.size, tables: rows };
}
