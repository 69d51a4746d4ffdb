import { createHash, randomBytes } from 'node:crypto';
import { sql, type Kysely } from 'kysely';
import type { Role } from '../../workbench/roles.ts';
import type { Database } from '../database.ts';
import { BY } from '../history.ts';
import { addToLog } from '../house/log.ts';
import { NotFoundError } from '../http/answers.ts';
import type { Door } from '../people/door.ts';

/** What a token begins with, so that one that was left lying about is known for what it is. */
const MARK = 'heptarch_';
const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');

export interface TokenInfo {
	readonly id: string;
	readonly name: string;
	readonly role: Role;
	readonly by: string | null;
	/** ISO 8601. */
	readonly since: string;
	readonly until: string;
	readonly usedAt: string | null;
	readonly isOver: boolean;
}

/** A token for a program, with what it may and how long, in days; what it says is told now and never again. */
export async function makeToken(
	db: Kysely<Database>,
	{ name, role, days }: { readonly name: string; readonly role: Role; readonly days: number }
): Promise<{ id: string; token: string }> {
	const token = MARK + randomBytes(32).toString('base64url');
	return db.transaction().execute(async (trx) => {
		const { id } = await trx
			.insertInto('tokens')
			.values({
				name: name.trim(),
				hash: hashOf(token),
				role,
				expires_at: sql<Date>`now() + make_interval(days => ${days})`
			})
			.returning('id')
			.executeTakeFirstOrThrow();
		await addToLog(trx, 'token', `a token “${name.trim()}” was made, as ${role}, for ${days} days`);
		return { id, token };
	});
}

export async function listTokens(db: Kysely<Database>): Promise<TokenInfo[]> {
	const rows = await db
		.selectFrom('tokens')
		.select(['id', 'name', 'role', 'created_at', 'expires_at', 'used_at', 'ended_at', BY.as('by')])
		.orderBy('created_at', 'desc')
		.execute();
	return rows.map(({ id, name, role, by, created_at, expires_at, used_at, ended_at }) => ({
		id,
		name,
		role,
		by,
		since: created_at.toISOString(),
		until: (ended_at ?? expires_at).toISOString(),
		usedAt: used_at?.toISOString() ?? null,
		isOver: ended_at !== null || expires_at.getTime() < Date.now()
	}));
}

/** A token leads nowhere from now on. Throws NotFoundError. */
export async function endToken(db: Kysely<Database>, id: string): Promise<void> {
	await db.transaction().execute(async (trx) => {
		const ended = await trx
			.updateTable('tokens')
			.set({ ended_at: sql`now()` })
			.where('id', '=', id)
			.where('ended_at', 'is', null)
			.returning('name')
			.executeTakeFirst();
		if (!ended) throw new NotFoundError('There is no such token, or it leads nowhere already.');
		await addToLog(trx, 'token', `the token “${ended.name}” was ended`);
	});
}

/** A program that asks. */
export interface Program {
	/** The id of its token, which stands for it wherever people are named. */
	readonly id: string;
	readonly name: string;
	readonly house: string;
	readonly role: Role;
}

/** Which program shows a token; undefined where it leads nowhere (any more). */
export async function programOf(door: Door, token: string): Promise<Program | undefined> {
	if (!token.startsWith(MARK)) return undefined;
	const row = await door
		.updateTable('tokens')
		.set({ usedAt: new Date() })
		.where('hash', '=', hashOf(token))
		.where('endedAt', 'is', null)
		.where('expiresAt', '>', sql<Date>`now()`)
		.returning(['id', 'name', 'houseId', 'role'])
		.executeTakeFirst();
	return row && { id: row.id, name: row.name, house: row.houseId, role: row.role };
}
