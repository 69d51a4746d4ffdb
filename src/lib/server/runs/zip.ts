import { ZipWriter, TextReader, Uint8ArrayReader } from '@zip.js/zip.js';
import type { Kysely } from 'kysely';
import { givenName } from '../../formats/file-names.ts';
import type { Database } from '../database.ts';
import { writeDocument } from '../documents/writing.ts';
import { NotFoundError } from '../http/answers.ts';
import { download } from '../http/files.ts';
import { listRuns } from './runs.ts';

/**
 * Every finished file of a run in one zip, with the account of each. Files are written one after the other as they are taken.
 * Throws NotFoundError.
 */
export async function zipOf(db: Kysely<Database>, id: string): Promise<Response> {
	const [run] = await listRuns(db, id);
	if (!run) throw new NotFoundError('This run is no longer here.');
	const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
	const zip = new ZipWriter(writable);
	const write = async () => {
		const taken = new Set<string>();
		const accounts = [];
		for (const { document, state } of run.items) {
			if (state !== 'done') continue;
			const { name, kind, bytes, account } = await writeDocument(db, document);
			let file = givenName(`${name}.${kind}`);
			for (let n = 2; taken.has(file.toLowerCase()); n++) file = givenName(`${n} ${name}.${kind}`);
			taken.add(file.toLowerCase());
			await zip.add(file, new Uint8ArrayReader(bytes));
			accounts.push({ file, ...account });
		}
		await zip.add('accounts.json', new TextReader(JSON.stringify(accounts, null, 2)));
		await zip.close();
	};
	// A browser that goes away ends the writing.
	void write().catch(() => writable.abort().catch(() => undefined));
	return download(readable, `${run.style}.zip`, 'application/zip');
}
