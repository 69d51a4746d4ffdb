import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import type { Style } from '../../core/style/types.ts';
import type { Database } from '../database.ts';
import { BY } from '../history.ts';
import { NotFoundError } from '../http/answers.ts';
import { addToLog } from '../house/log.ts';
import { assertSaysElse, frozenDraft, insertEdition } from './editions.ts';
import { STYLES, styleRow } from './styles.ts';

type Db = Kysely<Database> | Transaction<Database>;

/** An edition that somebody wants to be out, as it was when they said so. */
export interface Proposal {
	readonly id: string;
	readonly note: string;
	/** Who proposed it; null where that is not known. */
	readonly by: string | null;
	/** Whether it was whoever asks, who cannot be the second pair of eyes. */
	readonly isMine: boolean;
	/** ISO 8601. */
	readonly when: string;
	readonly frozen: Style;
}

/** What became of a proposal that is not out: who said it, with what note. */
export interface AnsweredProposal {
	readonly id: string;
	readonly note: string;
	readonly by: string | null;
	readonly answer: 'sent back' | 'taken back';
	readonly answeredBy: string | null;
	readonly answerNote: string;
	readonly when: string;
}

const ANSWERED_BY = sql<string | null>`(select name from colleagues where colleagues.id = answered_by)`;

/** The proposal of a style that nobody answered yet; undefined where there is none. */
export async function openProposal(db: Db, style: string): Promise<Proposal | undefined> {
	const row = await db
		.selectFrom('proposals')
		.select([
			'id',
			'note',
			'frozen',
			'created_at',
			BY.as('by'),
			sql<boolean>`made_by is not distinct from current_person()`.as('is_mine')
		])
		.where('style_id', '=', style)
		.where('answer', 'is', null)
		.executeTakeFirst();
	return (
		row && {
			id: row.id,
			note: row.note,
			by: row.by,
			isMine: row.is_mine,
			when: row.created_at.toISOString(),
			frozen: row.frozen
		}
	);
}

/** Proposals of a style that did not become editions, the latest first. */
export async function proposalsSentBack(db: Db, style: string): Promise<AnsweredProposal[]> {
	const rows = await db
		.selectFrom('proposals')
		.select(['id', 'note', 'answer', 'answer_note', 'answered_at', BY.as('by'), ANSWERED_BY.as('answered_by_name')])
		.where('style_id', '=', style)
		.where('answer', 'in', ['sent back', 'taken back'])
		.orderBy('answered_at', 'desc')
		.execute();
	return rows.map((row) => ({
		id: row.id,
		note: row.note,
		by: row.by,
		answer: row.answer as AnsweredProposal['answer'],
		answeredBy: row.answered_by_name,
		answerNote: row.answer_note ?? '',
		when: row.answered_at!.toISOString()
	}));
}

/** Which styles wait for a second pair of eyes, by id, with who proposed them. */
export async function listProposed(db: Db): Promise<{ id: string; name: string; by: string | null }[]> {
	return db
		.selectFrom('proposals')
		.innerJoin('styles', 'styles.id', 'proposals.style_id')
		.select(['styles.id', 'styles.name', BY.as('by')])
		.where('answer', 'is', null)
		.orderBy('styles.name')
		.execute();
}

/**
 * Proposes the draft as the next edition. Throws ConflictError where the draft was changed in the meantime, InputError where
 * there is nothing to publish or something is proposed already.
 */
export async function propose(db: Kysely<Database>, style: string, version: number, note: string): Promise<string> {
	return db.transaction().execute(async (trx) => {
		await STYLES.lock(trx, style, version);
		const open = await openProposal(trx, style);
		if (open)
			throw new InputError(
				'proposed',
				`${open.isMine ? 'You' : (open.by ?? 'Somebody')} proposed an edition of “${open.frozen.name}” already. It is answered first.`
			);
		const frozen = await frozenDraft(trx, style);
		await assertSaysElse(trx, style, frozen);
		const { definition } = await styleRow(trx, style);
		const { id } = await trx
			.insertInto('proposals')
			.values({
				style_id: style,
				note: note.trim(),
				definition: JSON.stringify(definition),
				frozen: JSON.stringify(frozen)
			})
			.returning('id')
			.executeTakeFirstOrThrow();
		await addToLog(trx, 'edition', `an edition of “${frozen.name}” was proposed`);
		return id;
	});
}

/** What is said to a proposal: it is out; it goes back to whoever made it; or they take it back themselves. */
export type ProposalAnswer = 'publish' | 'send back' | 'take back';

const BECOMES = { publish: 'published', 'send back': 'sent back', 'take back': 'taken back' } as const;

/**
 * Answers a proposal; answers with the number of the edition where it is out. Throws InputError where whoever asks may not:
 * nobody is the second pair of eyes for what they proposed.
 */
export async function answerProposal(
	db: Kysely<Database>,
	style: string,
	id: string,
	answer: ProposalAnswer,
	note: string
): Promise<{ edition: number | null }> {
	return db.transaction().execute(async (trx) => {
		await STYLES.lock(trx, style);
		const open = await openProposal(trx, style);
		if (open?.id !== id) {
			const known = await trx
				.selectFrom('proposals')
				.select(['answer', ANSWERED_BY.as('by')])
				.where('id', '=', id)
				.where('style_id', '=', style)
				.executeTakeFirst();
			if (!known) throw new NotFoundError('There is no such proposal.');
			throw new InputError(
				'answered',
				`This proposal was ${known.answer} already${known.by ? `, by ${known.by}` : ''}.`
			);
		}
		if (answer === 'publish' && open.isMine)
			throw new InputError('second-eyes', 'You proposed this edition; somebody else has to look at it and publish it.');
		if (answer === 'send back' && open.isMine)
			throw new InputError('second-eyes', 'You proposed this edition; take it back instead.');
		if (answer === 'take back' && !open.isMine)
			throw new InputError('second-eyes', 'Somebody else proposed this edition; send it back instead, with a note.');
		if (answer === 'send back' && !note.trim())
			throw new InputError('request', 'Say in a note what is to be done before it can be out.', '/note');
		let edition: number | null = null;
		if (answer === 'publish') {
			const { definition } = await trx
				.selectFrom('proposals')
				.select('definition')
				.where('id', '=', id)
				.executeTakeFirstOrThrow();
			const newest = await assertSaysElse(trx, style, open.frozen);
			edition = await insertEdition(trx, style, {
				number: newest + 1,
				definition,
				frozen: open.frozen,
				note: [open.note, note.trim()].filter(Boolean).join('\n'),
				isLookedAt: true
			});
		} else await addToLog(trx, 'edition', `the proposed edition of “${open.frozen.name}” was ${BECOMES[answer]}`);
		await trx
			.updateTable('proposals')
			.set({
				answer: BECOMES[answer],
				answer_note: note.trim(),
				answered_at: sql`now()`,
				answered_by: sql`current_person()`,
				edition
			})
			.where('id', '=', id)
			.execute();
		return { edition };
	});
}
