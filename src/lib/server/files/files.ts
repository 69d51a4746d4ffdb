import { createHash } from 'node:crypto';
import { sql, type Kysely, type Transaction } from 'kysely';
import type { Database } from '../database.ts';
import { objectStore, StoreError, type ObjectStore } from './objects.ts';

type Db = Kysely<Database> | Transaction<Database>;

/** Any number that nothing else locks: while one puts a file in, nobody takes the same out of the store. */
const FILES_LOCK = 4_710_002;

/**
 * Keeps a file's bytes, once however often it comes: in the database, or in the object store where there is one. Returns its
 * SHA-256 in hex, by which they are found again. Throws StoreError.
 * @param trx the transaction that writes down whose file it is
 */
export async function keepFile(trx: Transaction<Database>, bytes: Uint8Array): Promise<string> {
	const hash = createHash('sha256').update(bytes).digest('hex');
	const store = await objectStore();
	if (store) {
		await sql`select pg_advisory_xact_lock_shared(${FILES_LOCK}::bigint)`.execute(trx);
		await store.put(hash, bytes);
	}
	await trx
		.insertInto('files')
		.values({ hash, bytes: store ? null : Buffer.from(bytes), size: bytes.length })
		.onConflict((conflict) =>
			// Whoever sweeps sees that it is wanted again.
			conflict.column('hash').doUpdateSet({ created_at: new Date() })
		)
		.execute();
	return hash;
}

/** The bytes of a file that is kept. Throws StoreError where they are in the object store and it does not give them. */
export async function fileBytes(db: Db, hash: string): Promise<Uint8Array<ArrayBuffer>> {
	const { bytes } = await db.selectFrom('files').select('bytes').where('hash', '=', hash).executeTakeFirstOrThrow();
	if (bytes) return new Uint8Array(bytes);
	const found = await (await objectStore())?.get(hash);
	if (!found) throw new StoreError(new Error(`${hash} is not in the store of files that HEPTARCH_FILES names.`));
	return found;
}

/**
 * Takes out of the object store what no row of the database knows: contents of files that went, and of some that came and
 * were not written down. Returns how many.
 */
export async function sweepObjects(db: Kysely<Database>, store: ObjectStore, before: Date): Promise<number> {
	let gone = 0;
	for await (const hashes of store.before(before)) {
		if (!hashes.length) continue;
		gone += await db.transaction().execute(async (trx) => {
			await sql`select pg_advisory_xact_lock(${FILES_LOCK}::bigint)`.execute(trx);
			const rows = await trx.selectFrom('files').select('hash').where('hash', 'in', hashes).execute();
			const known = new Set(rows.map(({ hash }) => hash));
			const unknown = hashes.filter((hash) => !known.has(hash));
			if (unknown.length) await store.remove(unknown);
			return unknown.length;
		});
	}
	return gone;
}
