import assert from 'node:assert/strict';
import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import { TextReader, Uint8ArrayReader, Uint8ArrayWriter, ZipReader, ZipWriter } from '@zip.js/zip.js';
import { sql } from 'kysely';
import { bundle } from '../../../scripts/bundle.mjs';
import { seedList } from '../../../demo/documents/seed-list.ts';
import { connect } from '../../../src/lib/server/database.ts';
import { writeBackup } from '../../../src/lib/server/backup/backup.ts';
import type { Manifest } from '../../../src/lib/server/backup/manifest.ts';
import { Backup, restore } from '../../../src/lib/server/backup/restore.ts';
import { KEPT, LEFT_OUT } from '../../../src/lib/server/backup/tables.ts';
import { addDocument } from '../../../src/lib/server/documents/add.ts';
import { listDocuments } from '../../../src/lib/server/documents/list.ts';
import { writeDocument } from '../../../src/lib/server/documents/writing.ts';
import { checkStore } from '../../../src/lib/server/files/check.ts';
import { connectDoor } from '../../../src/lib/server/people/door.ts';
import { makePerson } from '../../../src/lib/server/people/entrance.ts';
import { beginHouse } from '../../../src/lib/server/people/founding.ts';
import { housesOf } from '../../../src/lib/server/people/members.ts';
import { asOwner, ownDatabase } from '../../database.ts';

const ROOT = join(import.meta.dirname, '..', '..', '..');
const folder = mkdtempSync(join(tmpdir(), 'heptarch-backup-test-'));

async function backupOf(url: string, name: string, secrets = false): Promise<{ path: string; manifest: Manifest }> {
	const path = join(folder, name);
	const pieces: Uint8Array[] = [];
	const into = new WritableStream<Uint8Array>({ write: (piece) => void pieces.push(piece.slice()) });
	const manifest = await asOwner(url, (owner) => writeBackup(owner, into, { secrets }));
	writeFileSync(path, Buffer.concat(pieces));
	return { path, manifest };
}
async function restoreInto(url: string, path: string, keeper?: string) {
	const backup = await Backup.open(path);
	return asOwner(url, (owner) => restore(owner, backup, keeper)).finally(() => backup.close());
}
const without = ({ made: _, ...manifest }: Manifest) => manifest;
/** How much there is in every table of an installation. */
const counts = (url: string) =>
	asOwner(url, async (owner) => {
		const found: Record<string, number> = {};
		for (const table of [...KEPT, 'houses', 'people', 'members'])
			found[table] = Number(
				(await sql<{ count: string }>`select count(*) from ${sql.table(table)}`.execute(owner)).rows[0]!.count
			);
		return found;
	});

describe('backups', () => {
	let url: string;
	let house: string;
	let kept: { path: string; manifest: Manifest };
	before(async () => {
		const own = await ownDatabase('demo');
		({ url, house } = own);
		await own.db.destroy();
		const door = connectDoor(url);
		const other = await beginHouse(door, 'Fern valley', await makePerson(door, 'Ines'));
		await door.destroy();
		const there = connect(url, other);
		await addDocument(there, 'Seeds of the valley.csv', new Uint8Array(Buffer.from(seedList())));
		await there.destroy();
		kept = await backupOf(url, 'first.zip');
	});
	after(() => rmSync(folder, { recursive: true, force: true }));

	it('every table of a house is kept, or left out on purpose', async () => {
		const tables = await asOwner(
			url,
			async (owner) =>
				(
					await sql<{ name: string }>`select distinct table_name as name from information_schema.columns
						where column_name = 'house_id' and table_schema = 'public'`.execute(owner)
				).rows
		);
		assert.deepEqual(tables.map(({ name }) => name).sort(), [...KEPT, ...LEFT_OUT].sort());
	});
	it('a backup that is restored into an empty installation, and made again, is the same', async () => {
		const empty = await ownDatabase('empty');
		await empty.db.destroy();
		const { isWhole, houses } = await restoreInto(empty.url, kept.path);
		assert.ok(isWhole);
		assert.equal(houses.length, 2);
		assert.deepEqual(await counts(empty.url), await counts(url));
		const again = await backupOf(empty.url, 'again.zip');
		assert.deepEqual(without(again.manifest), without(kept.manifest));
		const [before, after] = [connect(url, house), connect(empty.url, house)];
		assert.deepEqual((await checkStore(after)).faults, []);
		const { documents } = await listDocuments(before);
		for (const { id } of documents.slice(0, 4))
			assert.deepEqual((await writeDocument(after, id)).bytes, (await writeDocument(before, id)).bytes);
		// New steps go on after the old ones.
		await addDocument(after, 'More seeds.csv', new Uint8Array(Buffer.from(seedList())));
		await Promise.all([before.destroy(), after.destroy()]);
	});
	it('beside other houses it is a new one, kept by whoever brings it in, and nobody else comes in by it', async () => {
		const door = connectDoor(url);
		const oskar = await makePerson(door, 'Oskar');
		const before = await counts(url);
		const { isWhole, houses } = await restoreInto(url, kept.path, oskar);
		assert.ok(!isWhole);
		assert.equal(new Set([house, ...houses.map(({ id }) => id)]).size, 3);
		const after = await counts(url);
		assert.equal(after.documents, before.documents! * 2);
		assert.deepEqual(
			(await housesOf(door, oskar)).map(({ role }) => role),
			['keeper', 'keeper']
		);
		const { rows } = await asOwner(url, (owner) =>
			sql`select from members where house_id = ${houses[0]!.id} and left_at is null`.execute(owner)
		);
		assert.equal(rows.length, 1);
		await door.destroy();
	});
	it('with more files than a house may keep here it is not brought in, unless by the operator', async () => {
		const { db, url: elsewhere } = await ownDatabase('empty');
		await db.destroy();
		const door = connectDoor(elsewhere);
		const oskar = await makePerson(door, 'Oskar');
		await door.destroy();
		const before = await counts(elsewhere);
		process.env.HEPTARCH_STORE_MB = '0.01';
		try {
			await assert.rejects(restoreInto(elsewhere, kept.path, oskar), /keeps 1 MB of files, and a house may keep/);
			assert.deepEqual(await counts(elsewhere), before);
			assert.equal((await restoreInto(elsewhere, kept.path)).houses.length, 2);
		} finally {
			delete process.env.HEPTARCH_STORE_MB;
		}
	});
	it('passwords come along only where that is asked for', async () => {
		const names = async (path: string) => {
			const zip = new ZipReader(new Uint8ArrayReader(new Uint8Array(readFileSync(path))));
			return (await zip.getEntries()).map(({ filename }) => filename);
		};
		assert.ok(!(await names(kept.path)).some((name) => name.startsWith('secrets/')));
		const all = await backupOf(url, 'secrets.zip', true);
		assert.ok((await names(all.path)).includes('secrets/accounts.jsonl'));
		const empty = await ownDatabase('empty');
		await empty.db.destroy();
		await restoreInto(empty.url, all.path);
		assert.deepEqual(without((await backupOf(empty.url, 'secrets-again.zip', true)).manifest), without(all.manifest));
	});

	/** The backup with something done to its entries. */
	async function spoilt(
		name: string,
		change: (path: string, bytes: Uint8Array) => Uint8Array | undefined
	): Promise<string> {
		const zip = new ZipReader(new Uint8ArrayReader(new Uint8Array(readFileSync(kept.path))));
		const out = new ZipWriter(new Uint8ArrayWriter());
		for (const entry of await zip.getEntries()) {
			if (entry.directory) continue;
			const bytes = change(entry.filename, await entry.getData(new Uint8ArrayWriter()));
			if (bytes) await out.add(entry.filename, new Uint8ArrayReader(bytes));
		}
		const path = join(folder, name);
		writeFileSync(path, await out.close());
		return path;
	}
	const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
	const bytes = (text: string) => new TextEncoder().encode(text);
	const manifest = (change: (manifest: Record<string, unknown>) => object) => (path: string, data: Uint8Array) =>
		path === 'manifest.json' ? bytes(JSON.stringify(change(JSON.parse(text(data)) as Record<string, unknown>))) : data;

	it('what is damaged, foreign or newer is refused with what and where, and nothing of it is there', async () => {
		const empty = await ownDatabase('empty');
		await empty.db.destroy();
		const before = await counts(empty.url);
		const cut = join(folder, 'cut.zip');
		writeFileSync(cut, readFileSync(kept.path).subarray(0, 20_000));
		const flipped = join(folder, 'flipped.zip');
		const whole = readFileSync(kept.path);
		whole[Math.floor(whole.length / 3)]! ^= 0xff;
		writeFileSync(flipped, whole);
		const foreign = join(folder, 'foreign.zip');
		const zip = new ZipWriter(new Uint8ArrayWriter());
		await zip.add('word/document.xml', new TextReader('<w/>'));
		writeFileSync(foreign, await zip.close());
		const cases: [string, RegExp][] = [
			[join(folder, 'nowhere.zip'), /cannot be opened/],
			[cut, /damaged/],
			[flipped, /damaged/],
			[foreign, /no backup of Heptarch/],
			[
				await spoilt('missing.zip', (path, data) => (/files\/[0-9a-f]{64}$/.test(path) ? undefined : data)),
				/“houses\/1\/files\/\w+” is missing/
			],
			[
				await spoilt('changed.zip', (path, data) =>
					path.endsWith('rows/documents.jsonl') ? bytes(text(data).replace('Season', 'Saeson')) : data
				),
				/“houses\/\d\/rows\/documents\.jsonl” is another than it was/
			],
			[
				await spoilt(
					'format.zip',
					manifest((own) => ({ ...own, format: 'something-else' }))
				),
				/no backup of Heptarch/
			],
			[
				await spoilt(
					'version.zip',
					manifest((own) => ({ ...own, version: 2 }))
				),
				/newer Heptarch/
			],
			[
				await spoilt(
					'schema.zip',
					manifest((own) => ({ ...own, schema: '9999-later' }))
				),
				/newer Heptarch \(9999-later\)/
			],
			[
				await spoilt(
					'shape.zip',
					manifest((own) => ({ ...own, houses: [{ id: 1 }] }))
				),
				/manifest is not as it should be at \/houses\/0/
			],
			[
				await spoilt(
					'fewer.zip',
					manifest((own) => ({
						...own,
						entries: (own.entries as { path: string }[]).filter(({ path }) => !path.includes('rows/documents'))
					}))
				),
				/damaged/
			]
		];
		for (const [path, words] of cases) {
			await assert.rejects(restoreInto(empty.url, path), words, path);
			assert.deepEqual(await counts(empty.url), before, path);
		}
	});

	const run = async (program: string, database: string, file: string, killAfter?: number) => {
		const bundled = await bundle(join(ROOT, 'src', program), ['src']);
		return new Promise<number | null>((resolve) => {
			const child = spawn(process.execPath, [bundled, file], {
				env: { ...process.env, DATABASE_URL: database },
				stdio: ['ignore', 'ignore', 'pipe']
			});
			child.stderr.resume();
			child.once('exit', (code) => resolve(code));
			if (killAfter !== undefined) setTimeout(() => child.kill('SIGKILL'), killAfter);
		});
	};
	const lengthOf = async (work: () => Promise<unknown>) => {
		const began = Date.now();
		await work();
		return Date.now() - began;
	};
	it('a backup that is killed leaves nothing under its name', async () => {
		const took = await lengthOf(() => run('backup.ts', url, join(folder, 'whole.zip')));
		for (let i = 0; i < 10; i++) {
			const file = join(folder, `killed-${i}.zip`);
			const code = await run('backup.ts', url, file, Math.random() * took);
			const isThere = readdirSync(folder).includes(`killed-${i}.zip`);
			assert.equal(isThere, code === 0);
			if (isThere) await (await Backup.open(file)).close();
		}
	});
	it('a restore that is killed leaves nothing, or all', async () => {
		let empty = await ownDatabase('empty');
		await empty.db.destroy();
		const before = await counts(empty.url);
		const took = await lengthOf(() => run('restore.ts', empty.url, kept.path));
		const all = await counts(empty.url);
		empty = await ownDatabase('empty');
		await empty.db.destroy();
		for (let i = 0; i < 10; i++) {
			await run('restore.ts', empty.url, kept.path, Math.random() * took);
			// Its connection ends with it, a moment later.
			for (let tries = 0; tries < 100; tries++) {
				const { rows } = await asOwner(empty.url, (owner) =>
					sql`select from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid() and backend_type = 'client backend'`.execute(
						owner
					)
				);
				if (!rows.length) break;
				await new Promise((resolve) => setTimeout(resolve, 50));
			}
			const now = await counts(empty.url);
			assert.ok([JSON.stringify(before), JSON.stringify(all)].includes(JSON.stringify(now)), JSON.stringify(now));
			if (JSON.stringify(now) === JSON.stringify(all)) {
				empty = await ownDatabase('empty');
				await empty.db.destroy();
			}
		}
	});
});
