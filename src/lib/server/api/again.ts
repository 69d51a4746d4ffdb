import { createHash } from 'node:crypto';
import { sql, type Kysely } from 'kysely';
import { InputError } from '../../core/errors.ts';
import type { Database } from '../database.ts';

/** A request under whose key nothing was heard of for so long was lost: seconds. */
const LOST_AFTER = 180;
const KEY = /^[\x21-\x7e]{1,200}$/;

/** An answer that is given again. */
export interface KeptAnswer {
	readonly status: number;
	readonly headers: Record<string, string>;
	readonly body: unknown;
}

/** What was asked, by which the same key for something else is told from the same thing asked again. */
export const askedHash = (method: string, path: string, body: Uint8Array): string =>
	createHash('sha256').update(`${method} ${path}\n`).update(body).digest('hex');

/**
 * Does something once for a key (`Idempotency-Key`), whoever asks how often: the answer that was given first is given again for
 * a day. What failed is not kept, and may be tried again. Throws InputError where the key stands for something else, or
 * where it is being done at this moment.
 */
export async function doOnce(
	db: Kysely<Database>,
	who: string,
	key: string,
	asked: string,
	work: () => Promise<KeptAnswer>
): Promise<KeptAnswer & { readonly isAgain: boolean }> {
	if (!KEY.test(key))
		throw new InputError(
			'request',
			'An Idempotency-Key is 1 to 200 letters, digits and signs of ASCII.',
			'Idempotency-Key'
		);
	const own = `${who} ${key}`;
	const { rows: begun } = await sql`
		insert into answers_kept (key, asked) values (${own}, ${asked})
		on conflict (house_id, key) do update set created_at = now(), asked = excluded.asked
			where answers_kept.status is null and answers_kept.created_at < now() - make_interval(secs => ${LOST_AFTER})
		returning key`.execute(db);
	if (!begun.length) {
		const known = await db.selectFrom('answers_kept').selectAll().where('key', '=', own).executeTakeFirst();
		if (known && known.asked !== asked)
			throw new InputError(
				'key-used',
				'This Idempotency-Key was used for another request. Take a new one.',
				'Idempotency-Key'
			);
		if (!known || known.status === null)
			throw new InputError(
				'key-busy',
				'This is being done at this moment; ask again a little later.',
				'Idempotency-Key'
			);
		return { status: known.status, headers: known.headers ?? {}, body: known.body, isAgain: true };
	}
	const forget = () => db.deleteFrom('answers_kept').where('key', '=', own).execute();
	const answer = await work().catch(async (error: unknown) => {
		await forget().catch(() => undefined);
		throw error;
	});
	await db
		.updateTable('answers_kept')
		.set({ status: answer.status, headers: JSON.stringify(answer.headers), body: JSON.stringify(answer.body ?? null) })
		.where('key', '=', own)
		.execute();
	return { ...answer, isAgain: false };
}
