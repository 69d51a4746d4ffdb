import { createHash } from 'node:crypto';
import { sql, type Kysely, type Transaction } from 'kysely';
import type { Database } from '../database.ts';
import { objectStore, StoreError, type ObjectStore } from './objects.ts';

type Db = Kysely<Database> | Transaction<Database>;

/** Any number that nothing else locks: while one puts a file in, nobody takes the same out of the store. */
const FILES_LOCK = 4_710_002;

/** A file's name in the object store: whether another house has it, too, is nobody's business. */
const inHouse = (house: string, hash: string) => `${house}/${hash}`;

/**
 * Keeps a file's bytes in the house, once however often it comes: in the database, or in the object store where there is one. Returns its
 * SHA-256 in hex, by which they are found again. Throws StoreError.
 * @param trx the transaction that writes down whose file it is
 */
export async function keepFile(trx: Transaction<Database>, bytes: Uint8Array): Promise<string> {
	const hash = hashOf(bytes);
	const store = await objectStore();
	if (store) await sql`select pg_advisory_xact_lock_shared(${FILES_LOCK}::bigint)`.execute(trx);
	const { house_id: house } = await trx
		.insertInto('files')
		.values({ hash, bytes: store ? null : Buffer.from(bytes), size: bytes.length })
		.onConflict((conflict) =>
			// Whoever sweeps sees that it is wanted again.
			conflict.columns(['house_id', 'hash']).doUpdateSet({ created_at: new Date() })
		)
		.returning('house_id')
		.executeTakeFirstOrThrow();
	await store?.put(inHouse(house, hash), bytes);
	return hash;
}

/** SHA-256 of a file, in hex, by which it is kept. */
export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Puts the contents of a file where a row of a house tells of it. Throws StoreError. */
export async function putContents(
	trx: Transaction<Database>,
	house: string,
	hash: string,
	bytes: Uint8Array
): Promise<void> {
	const store = await objectStore();
	if (store) {
		await sql`select pg_advisory_xact_lock_shared(${FILES_LOCK}::bigint)`.execute(trx);
		return store.put(inHouse(house, hash), bytes);
	}
	await trx
		.updateTable('files')
		.set({ bytes: Buffer.from(bytes) })
		.where('house_id', '=', house)
		.where('hash', '=', hash)
		.execute();
}

/** The bytes of a file that is kept. Throws StoreError where they are in the object store and it does not give them. */
export async function fileBytes(db: Db, hash: string): Promise<Uint8Array<ArrayBuffer>> {
	const { bytes, house_id } = await db
		.selectFrom('files')
		.select(['bytes', 'house_id'])
		.where('hash', '=', hash)
		.executeTakeFirstOrThrow();
	if (bytes) return new Uint8Array(bytes);
	const store = await objectStore();
	// Files from before there were houses have no house in their name.
	const found = (await store?.get(inHouse(house_id, hash))) ?? (await store?.get(hash));
	if (!found) throw new StoreError(new Error(`${hash} is not in the store of files that HEPTARCH_FILES names.`));
	return found;
}

/**
 * Takes out of the object store what no row of any house knows: contents of files that went, and of some that came and
 * were not written down. Returns how many.
 */
export async function sweepObjects(owner: Kysely<Database>, store: ObjectStore, before: Date): Promise<number> {
	let gone = 0;
	for await (const names of store.before(before)) {
		if (!names.length) continue;
		const hashOf = (name: string) => name.slice(name.lastIndexOf('/') + 1);
		gone += await owner.transaction().execute(async (trx) => {
			await sql`select pg_advisory_xact_lock(${FILES_LOCK}::bigint)`.execute(trx);
			const rows = await trx
				.selectFrom('files')
				.select(['house_id', 'hash'])
				.where('hash', 'in', names.map(hashOf))
				.execute();
			const known = new Set(rows.flatMap(({ house_id, hash }) => [inHouse(house_id, hash), hash]));
			const unknown = names.filter((name) => !known.has(name));
			if (unknown.length) await store.remove(unknown);
			return unknown.length;
		});
	}
	return gone;
}
