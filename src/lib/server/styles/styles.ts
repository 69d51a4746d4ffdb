import type { StyleUse } from '../../workbench/use.ts';
import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { canonicalStyle } from '../../core/style/canonical.ts';
import { baseChain, type FindBase } from '../../core/style/inherit.ts';
import type { Style } from '../../core/style/types.ts';
import { FIRST_HOUSE } from '../../core/house.ts';
import { selfContained } from '../../core/style/export.ts';
import { checkStyle } from '../../core/style/validate.ts';
import { inTransaction, type Database } from '../database.ts';
import { History } from '../history.ts';
import { NotFoundError } from '../http/answers.ts';

type Db = Kysely<Database> | Transaction<Database>;

const GONE = 'This style is no longer in the Stylebook.';

/** A style of the house. In `definition`, `basedOn` is the id of the base. */
export interface StyleRecord {
	readonly id: string;
	readonly version: number;
	readonly definition: Style;
	/** The newest published edition, where one is out. */
	readonly edition: number | null;
	/** Whether an edition of the draft would say something else than the newest one. */
	readonly unpublished: boolean;
	readonly updatedAt: string;
	/** It is offered nowhere; whatever wears it goes on wearing it. */
	readonly aside: boolean;
	/** Where it is offered; null for everywhere. */
	readonly use: StyleUse | null;
	/** How many tables wear it, in how many documents. */
	readonly worn: { readonly tables: number; readonly documents: number };
	/** Names of the styles that build on it. */
	readonly basesOf: readonly string[];
}

export async function listStyles(db: Db): Promise<StyleRecord[]> {
	const rows = await db
		.selectFrom('styles')
		.selectAll()
		.orderBy(sql`lower(name)`)
		.execute();
	const worn = await db
		.selectFrom('wears')
		.select([
			'style_id',
			db.fn.countAll<string>().as('tables'),
			db.fn.count<string>('document_id').distinct().as('documents')
		])
		.groupBy('style_id')
		.execute();
	const newest = new Map((await newestEditions(db)).map((edition) => [edition.style_id, edition]));
	const house = await db.selectFrom('houses').select(['inks', 'type_roles as typeRoles', 'former']).executeTakeFirst();
	const find = findIn(rows);
	const counts = new Map(worn.map((count) => [count.style_id, count]));
	const built = new Map<string | null, string[]>();
	for (const { based_on, name } of rows) {
		const names = built.get(based_on);
		if (names) names.push(name);
		else built.set(based_on, [name]);
	}
	const saysElse = ({ frozen }: { frozen: Style }, draft: Style) =>
		JSON.stringify(canonicalStyle(frozen)) !==
		JSON.stringify(canonicalStyle(selfContained(draft, house ?? FIRST_HOUSE, find)));
	return rows.map((row) => {
		const edition = newest.get(row.id);
		const count = counts.get(row.id);
		return {
			id: row.id,
			version: row.version,
			definition: row.definition,
			edition: edition?.number ?? null,
			unpublished: !!edition && saysElse(edition, row.definition),
			updatedAt: row.updated_at.toISOString(),
			aside: row.archived_at !== null,
			use: row.used_in,
			worn: { tables: Number(count?.tables ?? 0), documents: Number(count?.documents ?? 0) },
			basesOf: built.get(row.id) ?? []
		};
	});
}

/** The newest edition of each style that has one. */
export async function newestEditions(db: Db) {
	return db
		.selectFrom('editions')
		.distinctOn('style_id')
		.selectAll()
		.orderBy('style_id')
		.orderBy('number', 'desc')
		.execute();
}

/** Looks bases up by id among these styles. */
export const findIn = (styles: readonly Pick<StyleRecord, 'id' | 'definition'>[]): FindBase => {
	const byId = new Map(styles.map(({ id, definition }) => [id, definition]));
	return (reference) => byId.get(reference);
};

export async function loadStyle(db: Db, id: string): Promise<StyleRecord> {
	const style = (await listStyles(db)).find((record) => record.id === id);
	if (!style) throw new NotFoundError(GONE);
	return style;
}

/** Any number that nothing else locks: names of styles are chosen by one at a time. */
const NAMES_LOCK = 4_710_001;
/** Until the transaction ends, nobody else finds the same name free. */
const lockNames = (db: Db) => sql`select pg_advisory_xact_lock(${NAMES_LOCK}::bigint)`.execute(db);

export async function assertNameFree(db: Db, name: string, except?: string): Promise<void> {
	await lockNames(db);
	const taken = await db
		.selectFrom('styles')
		.select(['id', 'archived_at'])
		.where(sql`lower(name)`, '=', name.toLowerCase())
		.executeTakeFirst();
	if (taken && taken.id !== except)
		throw new InputError(
			'name-taken',
			`The Stylebook already has a style named “${name}”${taken.archived_at ? ', put aside' : ''}. Give this one another name.`,
			'/name'
		);
}

/** Ids and names of the styles that are offered, by name. */
export async function styleNames(db: Db): Promise<{ id: string; name: string }[]> {
	return db.selectFrom('styles').select(['id', 'name']).where('archived_at', 'is', null).orderBy('name').execute();
}

/** A name that is free, by counting up. */
export async function freeName(db: Db, wanted: string): Promise<string> {
	await lockNames(db);
	const rows = await db.selectFrom('styles').select('name').execute();
	const taken = new Set(rows.map(({ name }) => name.toLowerCase()));
	for (let n = 1; ; n++) {
		const name = n === 1 ? wanted : `${wanted} ${n}`;
		if (!taken.has(name.toLowerCase())) return name;
	}
}

/** Puts a style aside, or brings it back. Throws NotFoundError where it is gone. */
export async function putStyleAside(db: Db, id: string, aside: boolean): Promise<void> {
	const { numUpdatedRows } = await db
		.updateTable('styles')
		.set({ archived_at: aside ? sql<Date>`now()` : null })
		.where('id', '=', id)
		.executeTakeFirst();
	if (!numUpdatedRows) throw new NotFoundError(GONE);
}

/** Says where a style is offered; null for everywhere. Throws NotFoundError where the style or the document is gone. */
export async function useStyle(db: Db, id: string, use: StyleUse | null): Promise<void> {
	if (use && 'document' in use) {
		const there = await db.selectFrom('documents').select('id').where('id', '=', use.document).executeTakeFirst();
		if (!there) throw new NotFoundError('This document is no longer here.');
	}
	const { numUpdatedRows } = await db
		.updateTable('styles')
		.set({ used_in: use && JSON.stringify(use) })
		.where('id', '=', id)
		.executeTakeFirst();
	if (!numUpdatedRows) throw new NotFoundError(GONE);
}

/** Stores a style as the first step of its own. Throws InputError for what is none. */
export async function insertStyle(db: Db, definition: Style): Promise<string> {
	const style = canonicalStyle(checkStyle(definition));
	const row = await db
		.insertInto('styles')
		.values({ name: style.name, based_on: style.basedOn ?? null, definition: JSON.stringify(style) })
		.returning('id')
		.executeTakeFirstOrThrow();
	await STYLES.write(db, row.id, 0, [{ label: 'as it began', state: style }]);
	return row.id;
}

/** How a style begins: blank, or from another one; called something free where it is not said how. */
interface Beginning {
	readonly from?: string;
	readonly how?: 'inherit' | 'copy';
	readonly name?: string;
	readonly description?: string;
}

/** A new style: blank, or from another that it builds on or copies. Returns its id. */
export async function createStyle(
	db: Kysely<Database>,
	{ from, how = 'copy', name, description }: Beginning = {}
): Promise<string> {
	return db.transaction().execute(async (trx) => {
		const blank: Style = { format: 'heptarch-style', version: 1, name: '', basedOn: null, parts: {} };
		const called = async (otherwise: string) => {
			const said = name?.trim();
			if (!said) return freeName(trx, otherwise);
			await assertNameFree(trx, said);
			return said;
		};
		const purpose = description?.trim() ? { description: description.trim() } : {};
		if (from === undefined) return insertStyle(trx, { ...blank, ...purpose, name: await called('New style') });
		const source = await loadStyle(trx, from);
		const base = source.definition.name;
		if (how === 'copy')
			return insertStyle(trx, { ...source.definition, ...purpose, name: await called(`${base}, copy`) });
		return insertStyle(trx, {
			...blank,
			...purpose,
			name: await called(`${base}, variant`),
			basedOn: from,
			...(source.definition.category && { category: source.definition.category })
		});
	});
}

/**
 * Takes a style file into the house, bases first. A base that the house has under that name is used as it is.
 * Throws InputError for a file that is not valid, a missing base or a cycle; nothing is stored then.
 */
export async function importStyle(db: Db, value: unknown, options: { reuse?: boolean } = {}): Promise<string> {
	const style = checkStyle(value);
	const chain = baseChain(style);
	return inTransaction(db, async (trx) => {
		await lockNames(trx);
		let basedOn: string | null = null;
		for (const base of [...chain].reverse()) {
			const known = await trx
				.selectFrom('styles')
				.select('id')
				.where(sql`lower(name)`, '=', base.name.toLowerCase())
				.executeTakeFirst();
			const { bases: _, ...own } = base;
			basedOn = known?.id ?? (await insertStyle(trx, { ...own, basedOn }));
		}
		const { bases: _, ...own } = style;
		if (options.reuse) {
			const known = await trx
				.selectFrom('styles')
				.select('id')
				.where(sql`lower(name)`, '=', style.name.toLowerCase())
				.executeTakeFirst();
			if (known) return known.id;
		}
		await assertNameFree(trx, style.name);
		return insertStyle(trx, { ...own, basedOn });
	});
}

/** The steps of styles. */
export const STYLES = new History<Style>({
	owner: 'styles',
	steps: 'style_steps',
	of: 'style_id',
	state: 'definition',
	gone: GONE,
	what: 'This style',
	then: 'Your change is still here and not saved.'
});
/** A style's row. Throws NotFoundError where it is gone. */
export async function styleRow(db: Db, id: string) {
	const row = await db.selectFrom('styles').selectAll().where('id', '=', id).executeTakeFirst();
	if (!row) throw new NotFoundError(GONE);
	return row;
}

/** The keys of the tables on a style's specimen sheet; null where nobody chose. */
export async function chosenSpecimens(db: Db, id: string): Promise<string[] | null> {
	const row = await db.selectFrom('styles').select('specimens').where('id', '=', id).executeTakeFirst();
	return row?.specimens ?? null;
}

/** Chooses the tables on a style's specimen sheet by their keys; null leaves the choice to the program. */
export async function chooseSpecimens(db: Kysely<Database>, id: string, keys: readonly string[] | null): Promise<void> {
	await db
		.updateTable('styles')
		.set({ specimens: keys && JSON.stringify(keys) })
		.where('id', '=', id)
		.execute();
}
