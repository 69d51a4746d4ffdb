import { sql } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { listed, plural } from '../../core/words.ts';
import type { Db } from '../documents/rows.ts';
import { forgetSteps } from './keeping.ts';
import { addToLog } from './log.ts';

/** What the house keeps, in bytes; of removed documents what goes for good within a day. */
export interface Store {
	readonly files: number;
	readonly bytes: number;
	readonly removed: { readonly documents: number; readonly bytes: number };
	/** Its steps. */
	readonly steps: { readonly count: number; readonly bytes: number };
	/** What its operator lets it keep; null where nothing was said. */
	readonly most: number | null;
}

/** The operator's limit: `HEPTARCH_STORE_MB`. */
const mostBytes = (): number | null => {
	const said = Number(process.env.HEPTARCH_STORE_MB);
	return said > 0 ? said * 2 ** 20 : null;
};

export async function loadStore(db: Db): Promise<Store> {
	const { rows } = await sql<{
		files: number;
		bytes: number;
		documents: number;
		removed: number;
		steps: number;
		stepBytes: number;
	}>`
		with gone as (
			select file_hash, bool_and(removed_at is not null) as is_gone from documents group by file_hash
		), steps as (
			select pg_column_size(state) as size from document_steps
			union all select pg_column_size(definition) from style_steps
			union all select pg_column_size(state) from house_steps
			union all select coalesce(pg_column_size(patch), 0) + coalesce(pg_column_size(whole), 0) from work_steps
		)
		select count(*)::int as files, coalesce(sum(size), 0)::float8 as bytes,
			coalesce(sum(size) filter (where is_gone), 0)::float8 as removed,
			(select count(*) from documents where removed_at is not null)::int as documents,
			(select count(*) from steps)::int as steps,
			(select coalesce(sum(size), 0) from steps)::float8 as "stepBytes"
		from files left join gone on gone.file_hash = files.hash`.execute(db);
	const { files, bytes, documents, removed, steps, stepBytes } = rows[0]!;
	return {
		files,
		bytes,
		removed: { documents, bytes: removed },
		steps: { count: steps, bytes: stepBytes },
		most: mostBytes()
	};
}

/** Throws InputError where a house that is brought in keeps more than its operator lets it. */
export function checkFits(name: string, bytes: number): void {
	const most = mostBytes();
	if (most !== null && bytes > most)
		throw new InputError(
			'no-room',
			`“${name}” keeps ${Math.ceil(bytes / 2 ** 20)} MB of files, and a house may keep ${Math.round(most / 2 ** 20)} MB here. Ask the operator for more room, or to bring it in.`
		);
}

/** Throws InputError where so many bytes more are over what the operator lets the house keep. */
export async function checkRoom(db: Db, more: number): Promise<void> {
	const most = mostBytes();
	if (most === null) return;
	const kept = async () => {
		const { bytes } = await db
			.selectFrom('files')
			.select(sql<number>`coalesce(sum(size), 0)::float8`.as('bytes'))
			.executeTakeFirstOrThrow();
		return bytes;
	};
	let bytes = await kept();
	if (bytes + more <= most) return;
	await sweep(db, true);
	bytes = await kept();
	if (bytes + more > most)
		throw new InputError(
			'no-room',
			`The house keeps ${Math.round(bytes / 2 ** 20)} MB of files, and may keep ${Math.round(most / 2 ** 20)} MB. Remove documents, or ask its operator for more room.`
		);
}

/**
 * Documents that were taken out a day ago go for good, and steps beyond the keeping time of the house, and with the last
 * one that needs a file its bytes; all documents that were taken out where space is short. Returns how many of each went.
 */
export async function sweep(db: Db, isShort = false): Promise<{ documents: number; steps: number; files: number }> {
	const documents = await db
		.deleteFrom('documents')
		.where('removed_at', '<', isShort ? sql<Date>`now()` : sql<Date>`now() - interval '1 day'`)
		.executeTakeFirst();
	const steps = isShort ? 0 : await forgetSteps(db);
	const files = await db
		.deleteFrom('files')
		// One that came in just now may belong to a document that is not written yet.
		.where('created_at', '<', sql<Date>`now() - interval '1 hour'`)
		.where(({ and, not, exists, selectFrom }) =>
			and([
				not(exists(selectFrom('documents').select('id').whereRef('file_hash', '=', 'files.hash'))),
				not(
					exists(
						selectFrom('document_steps')
							.select('step')
							.where(sql<boolean>`state ->> 'file' = files.hash or state -> 'drawing' ->> 'file' = files.hash`)
					)
				)
			])
		)
		.executeTakeFirst();
	const gone = { documents: Number(documents.numDeletedRows), steps, files: Number(files.numDeletedRows) };
	const words = [
		...(gone.documents ? [plural(gone.documents, 'removed document')] : []),
		...(gone.steps ? [`${plural(gone.steps, 'step')} beyond the keeping time`] : []),
		...(gone.files ? [`${plural(gone.files, 'file')} that nothing stands on`] : [])
	];
	if (words.length) await addToLog(db, 'sweep', `${listed(words)} went for good`);
	return gone;
}
