import { createHash } from 'node:crypto';
import { sql } from 'kysely';
import type { Db } from '../documents/rows.ts';
import { fileBytes } from './files.ts';
import { StoreError } from './objects.ts';

/** A file that is not as it was kept, and whose it is. */
export interface StoreFault {
	/** SHA-256 of what it should be, in hex. */
	readonly hash: string;
	readonly words: string;
	/** Names of documents that stand, or stood at some step, on it. */
	readonly documents: readonly string[];
}

export interface CheckedStore {
	readonly files: number;
	readonly bytes: number;
	readonly faults: readonly StoreFault[];
}

/**
 * Reads every file that is kept, and looks whether it is there and whole: its size and its SHA-256 are those under which it
 * was put away; and whether every file that a document or one of its steps names is kept at all. Changes nothing.
 */
export async function checkStore(db: Db): Promise<CheckedStore> {
	const { rows: named } = await sql<{ hash: string; documents: string[]; size: string | null }>`
		with named as (
			select file_hash as hash, name from documents
			union select s.state ->> 'file', d.name from document_steps s join documents d on d.id = s.document_id
				where s.state ->> 'file' is not null
			union select s.state -> 'drawing' ->> 'file', d.name from document_steps s join documents d on d.id = s.document_id
				where s.state -> 'drawing' ->> 'file' is not null
			union select hash, null from files
		)
		select hash, array_remove(array_agg(distinct name order by name), null) as documents,
			(select size from files f where f.hash = named.hash) as size
		from named group by hash order by hash`.execute(db);
	const faults: StoreFault[] = [];
	let bytes = 0;
	// One after the other: a house can keep more than fits into memory.
	for (const { hash, documents, size } of named) {
		const words = size === null ? 'it is not kept' : await faultOf(db, hash, Number(size));
		bytes += Number(size ?? 0);
		if (words) faults.push({ hash, words, documents });
	}
	return { files: named.length, bytes, faults };
}

async function faultOf(db: Db, hash: string, size: number): Promise<string | undefined> {
	let bytes: Uint8Array;
	try {
		bytes = await fileBytes(db, hash);
	} catch (error) {
		if (!(error instanceof StoreError)) throw error;
		return 'the store of files does not have it, or does not answer';
	}
	if (bytes.length !== size) return `it has ${bytes.length} bytes, and had ${size}`;
	return createHash('sha256').update(bytes).digest('hex') === hash ? undefined : 'its content is another than was kept';
}
