import type { House } from '../../core/house.ts';
import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { canonicalStyle } from '../../core/style/canonical.ts';
import { selfContained } from '../../core/style/export.ts';
import { withLeavesAt, withRules } from '../../core/style/edit.ts';
import { leavesOf } from '../../core/style/leaves.ts';
import { partWords } from '../../core/style/parts.ts';
import type { Condition, PartSettings, Style } from '../../core/style/types.ts';
import { editionKey } from '../../workbench/stylebook.ts';
import { NotFoundError } from '../http/answers.ts';
import { addToLog } from '../house/log.ts';
import type { Database } from '../database.ts';
import { BY } from '../history.ts';
import { loadHouse, wantsSecondEyes } from '../house/house.ts';
import { announce } from '../programs/webhooks.ts';
import { addStyleStep } from './steps.ts';
import { findIn, listStyles, loadStyle, newestEditions, STYLES, styleRow, type StyleRecord } from './styles.ts';

type Db = Kysely<Database> | Transaction<Database>;

const draftOf = async (trx: Db, id: string) => ({
	definition: (await styleRow(trx, id)).definition,
	frozen: await frozenDraft(trx, id)
});

/** A published, frozen version of a style. */
export interface EditionRecord {
	readonly number: number;
	readonly note: string;
	readonly publishedAt: string;
	/** Who published it, and who had proposed it; null where that is not known, or was nobody. */
	readonly by: string | null;
	readonly proposedBy: string | null;
	/** With its bases, inks and type roles. */
	readonly frozen: Style;
}

const PROPOSED_BY = sql<string | null>`(select c.name from proposals p join colleagues c on c.id = p.made_by
	where p.style_id = editions.style_id and p.edition = editions.number)`;

/** All editions of a style, newest first. */
export async function listEditions(db: Db, id: string): Promise<EditionRecord[]> {
	const rows = await db
		.selectFrom('editions')
		.select(['number', 'note', 'created_at', 'frozen', BY.as('by'), PROPOSED_BY.as('proposedBy')])
		.where('style_id', '=', id)
		.orderBy('number', 'desc')
		.execute();
	return rows.map(({ created_at, ...edition }) => ({ ...edition, publishedAt: created_at.toISOString() }));
}

/** The draft as an edition would freeze it: with its bases and everything that it names of the house. */
export async function frozenDraft(db: Db, id: string): Promise<Style> {
	const style = await loadStyle(db, id);
	return canonicalStyle(selfContained(style.definition, await loadHouse(db), findIn(await listStyles(db))));
}

/** The number of the newest edition, 0 where none is out. Throws InputError where it says the same as what is to be out next. */
export async function assertSaysElse(trx: Db, id: string, frozen: Style): Promise<number> {
	const [newest] = await listEditions(trx, id);
	if (newest && JSON.stringify(canonicalStyle(newest.frozen)) === JSON.stringify(canonicalStyle(frozen)))
		throw new InputError(
			'edition',
			`Edition ${newest.number} of “${frozen.name}” says exactly this already; there is nothing to publish.`
		);
	return newest?.number ?? 0;
}

/**
 * Publishes the draft as the next edition. Throws ConflictError where the draft was changed in the meantime, InputError where
 * the newest edition says the same already, or the house wants somebody else to look at it first.
 */
export async function publishEdition(db: Kysely<Database>, id: string, version: number, note: string): Promise<number> {
	return db.transaction().execute(async (trx) => {
		await STYLES.lock(trx, id, version);
		const frozen = await frozenDraft(trx, id);
		const newest = await assertSaysElse(trx, id, frozen);
		const { definition } = await styleRow(trx, id);
		return insertEdition(trx, id, { number: newest + 1, note: note.trim(), definition, frozen });
	});
}

interface NewEdition extends Pick<EditionRecord, 'number' | 'note' | 'frozen'> {
	readonly definition: Style;
	/** Whether somebody else than who made it looked at it. */
	readonly isLookedAt?: boolean;
}

/** An edition is out. Throws InputError where the house wants somebody else to look at it first, and nobody did. */
export async function insertEdition(trx: Db, id: string, edition: NewEdition): Promise<number> {
	const { number, note, definition, frozen, isLookedAt = false } = edition;
	if (!isLookedAt && (await wantsSecondEyes(trx)))
		throw new InputError(
			'second-eyes',
			`This house wants a second pair of eyes: an edition of “${frozen.name}” is proposed on its page of editions, and published by somebody else. Nothing was changed.`
		);
	await trx
		.insertInto('editions')
		.values({
			style_id: id,
			number,
			note,
			definition: JSON.stringify(definition),
			frozen: JSON.stringify(frozen)
		})
		.execute();
	await addToLog(trx, 'edition', `edition ${number} of “${frozen.name}” was published`);
	await announce(trx, 'edition.published', `${id}@${number}`, { style: id, name: frozen.name, edition: number });
	return number;
}

/**
 * The newest edition of a style, for a table that is to wear it. Where none is out, the draft as it is now is published as
 * edition 1 (`isFirst`): a document never wears a draft.
 */
export async function editionToWear(
	trx: Transaction<Database>,
	id: string
): Promise<{ readonly number: number; readonly isFirst: boolean }> {
	await STYLES.lock(trx, id);
	const [newest] = await listEditions(trx, id);
	if (newest) return { number: newest.number, isFirst: false };
	const edition = {
		number: 1,
		note: 'Published by itself, as a table put the style on.',
		...(await draftOf(trx, id))
	};
	return { number: await insertEdition(trx, id, edition), isFirst: true };
}

/**
 * Makes what touches said a setting of a part, or a new cell rule, of a style: a step of its draft, and an edition of that,
 * for the table that was touched to wear.
 */
export async function promote(
	db: Kysely<Database>,
	id: string,
	{ place, set, where }: { readonly place: string; readonly set: PartSettings; readonly where?: Condition }
): Promise<{ place: string; edition: number }> {
	return db.transaction().execute(async (trx) => {
		const { definition } = await loadStyle(trx, id);
		const rule = place.startsWith('rule:') ? place.slice(5) : undefined;
		if (rule !== undefined && definition.rules?.some(({ name }) => name === rule))
			throw new InputError('rule', `“${definition.name}” has a rule “${rule}” already. Give it another name.`);
		const next =
			rule === undefined
				? withLeavesAt(definition, place, leavesOf(set))
				: withRules(definition, [
						...(definition.rules ?? []),
						{ name: rule, where: where ?? { any: true, is: 'empty' }, set }
					]);
		const words = rule === undefined ? partWords(place) : `rule “${rule}”`;
		await addStyleStep(trx, id, `${words}, promoted from touches`, next);
		const [newest] = await listEditions(trx, id);
		const note = `Published by itself: ${words} took over what cells of a table said.`;
		const number = (newest?.number ?? 0) + 1;
		return { place, edition: await insertEdition(trx, id, { number, note, ...(await draftOf(trx, id)) }) };
	});
}

/** Makes the draft what an edition was, as a step that can be undone. A base that is gone since is a plain error. */
export async function restoreEdition(db: Kysely<Database>, id: string, number: number): Promise<void> {
	await db.transaction().execute(async (trx) => {
		const edition = await trx
			.selectFrom('editions')
			.select('definition')
			.where('style_id', '=', id)
			.where('number', '=', number)
			.executeTakeFirst();
		if (!edition) throw new NotFoundError(`The style has no edition ${number}.`);
		await addStyleStep(trx, id, `edition ${number} restored`, edition.definition);
	});
}

/** What tables wear, by style and edition: definitions that need nothing else but the house. */
export class Wardrobe {
	private constructor(
		readonly styles: readonly StyleRecord[],
		private readonly editions: ReadonlyMap<string, Style>,
		private readonly newest: ReadonlyMap<string, number>
	) {}

	/** Loads the styles and all editions that some table wears or that are the newest of their style. */
	static async load(db: Db): Promise<Wardrobe> {
		const styles = await listStyles(db);
		const newest = await newestEditions(db);
		const rows = await db
			.selectFrom('editions')
			.innerJoin('wears', (join) =>
				join.onRef('wears.style_id', '=', 'editions.style_id').onRef('wears.edition', '=', 'editions.number')
			)
			.select(['editions.style_id', 'editions.number', 'editions.frozen'])
			.distinct()
			.execute();
		const editions = new Map(
			[...rows, ...newest].map(({ style_id, number, frozen }) => [`${style_id}@${number}`, frozen])
		);
		return new Wardrobe(styles, editions, new Map(newest.map(({ style_id, number }) => [style_id, number])));
	}

	/**
	 * The definition that a table wears; undefined for a style or edition that is gone. What is not the newest edition of a
	 * published style says so in its name, so that two of them in one file do not get mixed up.
	 */
	definition({ style, edition }: { style?: string; edition?: number }): Style | undefined {
		const record = this.styles.find(({ id }) => id === style);
		if (!record) return undefined;
		const newest = this.newest.get(record.id);
		const definition = edition === undefined ? record.definition : this.editions.get(`${style}@${edition}`);
		if (!definition || newest === edition) return definition;
		return { ...definition, name: `${definition.name}, ${edition === undefined ? 'draft' : `edition ${edition}`}` };
	}

	/** What an author gives a table now: the newest edition of each style, or its draft, which is then published as the first. */
	offered(): (StyleRecord & { readonly edition: number | null })[] {
		return this.styles.map((record) => {
			const edition = this.newest.get(record.id);
			const definition = edition === undefined ? record.definition : this.editions.get(`${record.id}@${edition}`)!;
			return { ...record, definition };
		});
	}

	/** What is looked at beside the newest editions: older ones that tables wear, and drafts that say something else. */
	older(house: House): Record<string, Style> {
		const older: Record<string, Style> = {};
		for (const [key, frozen] of this.editions) {
			const [style, number] = key.split('@') as [string, string];
			if (this.newest.get(style) !== Number(number)) older[editionKey(style, Number(number))] = frozen;
		}
		for (const { id, definition, unpublished } of this.styles)
			if (unpublished) older[editionKey(id, undefined)] = selfContained(definition, house, findIn(this.styles));
		return older;
	}
}
