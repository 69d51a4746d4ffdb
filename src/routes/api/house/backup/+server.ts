import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Gives } from '$lib/server/http/contract.ts';
import { writeBackup } from '$lib/server/backup/backup.ts';
import { Backup, restore } from '$lib/server/backup/restore.ts';
import { takenName } from '$lib/formats/file-names.ts';
import { answer } from '$lib/server/http/answers.ts';
import { connectAsOwner, databaseUrl, db } from '$lib/server/database.ts';
import { addToLog } from '$lib/server/house/log.ts';
import { download, uploaded } from '$lib/server/http/files.ts';
import { known } from '$lib/server/http/signed.ts';
import type { RequestHandler } from './$types.js';

/** Everything of the house, as it is at this moment, as one zip. */
export const GET: RequestHandler = ({ locals }) =>
	answer(async () => {
		const { house, houseName } = known(locals);
		await addToLog(db(), 'backup', 'the house was taken out as a backup');
		const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
		const owner = connectAsOwner(databaseUrl());
		// A browser that goes away ends the writing.
		void writeBackup(owner, writable, { house })
			.catch(() => undefined)
			.finally(() => owner.destroy());
		return download(readable, `${houseName}, ${new Date().toISOString().slice(0, 10)}.zip`, 'application/zip');
	});

/** Brings a house in from a backup, as a new one beside those that there are, kept by whoever does so. */
export const POST: RequestHandler = ({ request, locals, url }) =>
	answer<Gives<'POST /api/house/backup'>>(async () => {
		const { person } = known(locals);
		const name = takenName(url.searchParams.get('name'), 'backup.zip');
		const bytes = await uploaded(request, name);
		const folder = await mkdtemp(join(tmpdir(), 'heptarch-backup-'));
		const owner = connectAsOwner(databaseUrl());
		try {
			await writeFile(join(folder, 'backup.zip'), bytes, { mode: 0o600 });
			const backup = await Backup.open(join(folder, 'backup.zip'), name);
			return await restore(owner, backup, person).finally(() => backup.close());
		} finally {
			await rm(folder, { recursive: true, force: true });
			await owner.destroy();
		}
	}, 201);
