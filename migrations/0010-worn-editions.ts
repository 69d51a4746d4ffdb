import { sql, type Kysely } from 'kysely';
import { canonicalStyle } from '../src/lib/core/style/canonical.ts';
import { selfContained } from '../src/lib/core/style/export.ts';
import type { Style, TypeRole } from '../src/lib/core/style/types.ts';

interface Worn {
	readonly style?: string;
	readonly edition?: number;
}
type Tables = Readonly<Record<string, Worn>>;

/**
 * Tables of documents wear editions, never drafts: what wore a draft wears the edition that says what the draft said at
 * this moment, which is published where none does.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
	const { rows: styles } = await sql<{ id: string; definition: Style }>`select id, definition from styles`.execute(db);
	const { rows: houses } = await sql<{
		inks: Record<string, string>;
		type_roles: Record<string, TypeRole>;
	}>`select inks, type_roles from houses limit 1`.execute(db);
	const house = { inks: houses[0]?.inks ?? {}, typeRoles: houses[0]?.type_roles ?? {} };
	const find = (id: string) => styles.find((style) => style.id === id)?.definition;

	const numbers = new Map<string, number>();
	const editionOf = async (style: string): Promise<number | undefined> => {
		const definition = find(style);
		const known = numbers.get(style);
		if (known !== undefined || !definition) return known;
		const { rows } = await sql<{ number: number; frozen: Style }>`
			select number, frozen from editions where style_id = ${style} order by number desc limit 1`.execute(db);
		const [newest] = rows;
		const frozen = canonicalStyle(selfContained(definition, house, find));
		const isSame = newest && JSON.stringify(canonicalStyle(newest.frozen)) === JSON.stringify(frozen);
		const number = isSame ? newest.number : (newest?.number ?? 0) + 1;
		if (!isSame)
			await sql`insert into editions (style_id, number, note, definition, frozen) values (${style}, ${number},
				${'Published by itself, as tables of documents wore the draft.'}, ${JSON.stringify(definition)}, ${JSON.stringify(frozen)})`.execute(
				db
			);
		numbers.set(style, number);
		return number;
	};
	/** The same object where every table wears an edition. */
	const inEditions = async (tables: Tables): Promise<Tables> => {
		let next = tables;
		for (const [index, own] of Object.entries(tables)) {
			if (!own?.style || own.edition !== undefined) continue;
			const edition = await editionOf(own.style);
			if (edition !== undefined) next = { ...next, [index]: { ...own, edition } };
		}
		return next;
	};

	const { rows: steps } = await sql<{ document_id: string; step: number; state: { tables?: Tables } | null }>`
		select document_id, step, state from document_steps where state::text like '%"style"%'`.execute(db);
	for (const { document_id, step, state } of steps) {
		const tables = await inEditions(state?.tables ?? {});
		if (tables !== (state?.tables ?? {}))
			await sql`update document_steps set state = ${JSON.stringify({ ...state, tables })}
				where document_id = ${document_id} and step = ${step}`.execute(db);
	}
	const { rows: items } = await sql<{ run_id: string; document_id: string; before: Tables }>`
		select run_id, document_id, before from run_items where before is not null and not before ? 'rows'`.execute(db);
	for (const { run_id, document_id, before } of items) {
		const next = await inEditions(before);
		if (next !== before)
			await sql`update run_items set before = ${JSON.stringify(next)}
				where run_id = ${run_id} and document_id = ${document_id}`.execute(db);
	}
	const { rows: rollouts } = await sql<{ id: string; documents: Record<string, Tables> }>`
		select id, documents from rollouts`.execute(db);
	for (const { id, documents } of rollouts) {
		const entries: [string, Tables][] = [];
		for (const [document, tables] of Object.entries(documents)) entries.push([document, await inEditions(tables)]);
		await sql`update rollouts set documents = ${JSON.stringify(Object.fromEntries(entries))} where id = ${id}`.execute(
			db
		);
	}
	for (const { style_id } of (
		await sql<{ style_id: string }>`
			select style_id from wears where edition is null union select style_id from runs
			where edition is null and style_id is not null`.execute(db)
	).rows) {
		const edition = await editionOf(style_id);
		await sql`update wears set edition = ${edition} where style_id = ${style_id} and edition is null`.execute(db);
		await sql`update runs set edition = ${edition} where style_id = ${style_id} and edition is null`.execute(db);
	}
}

/** What wore a draft is not known any more; it goes on wearing the edition. */
export async function down(): Promise<void> {}
