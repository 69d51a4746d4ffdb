import { createHash } from 'node:crypto';
import { open, type FileHandle } from 'node:fs/promises';
import { Reader, TextWriter, Uint8ArrayWriter, ZipReader, type Entry as ZipEntry } from '@zip.js/zip.js';
import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import type { Database } from '../database.ts';
import { hashOf, putContents } from '../files/files.ts';
import { checkFits } from '../house/store.ts';
import { actAs } from '../people/acting.ts';
import { readManifest, Tally, type Manifest } from './manifest.ts';
import { AT_ONCE, columnsOf, KEPT, linesOf } from './tables.ts';

type Trx = Transaction<Database>;

/** A file on the disk, of which parts are read as they are needed. */
class FileReader extends Reader<FileHandle> {
	constructor(private readonly handle: FileHandle) {
		super(handle);
	}
	override async init(): Promise<void> {
		this.size = (await this.handle.stat()).size;
	}
	override async readUint8Array(index: number, length: number): Promise<Uint8Array> {
		const bytes = new Uint8Array(length);
		const { bytesRead } = await this.handle.read(bytes, 0, length, index);
		return bytes.subarray(0, bytesRead);
	}
}

/** A backup that was looked through: everything in it is as its manifest says. */
export class Backup {
	private constructor(
		readonly name: string,
		readonly manifest: Manifest,
		private readonly handle: FileHandle,
		private readonly entries: ReadonlyMap<string, ZipEntry>
	) {}

	/** Opens a backup and checks every entry of it, before anything is written anywhere. Throws InputError for what is none, or damaged. */
	static async open(path: string, name = path): Promise<Backup> {
		const handle = await open(path).catch(() => {
			throw new InputError('backup', `“${name}” cannot be opened.`, name);
		});
		try {
			const entries = await new ZipReader(new FileReader(handle)).getEntries().catch(() => {
				throw new InputError('backup', `“${name}” is no backup of Heptarch, or it is damaged: it is no zip.`, name);
			});
			const byName = new Map(entries.map((entry) => [entry.filename, entry]));
			const said = byName.get('manifest.json');
			if (!said || said.directory) throw new InputError('backup', `“${name}” is no backup of Heptarch.`, name);
			const text = await said.getData(new TextWriter(), { checkSignature: true }).catch(() => {
				throw new InputError('backup', `“${name}” is damaged: its manifest cannot be read.`, name);
			});
			const backup = new Backup(name, readManifest(text, name), handle, byName);
			await backup.check();
			return backup;
		} catch (error) {
			await handle.close();
			throw error;
		}
	}
	close(): Promise<void> {
		return this.handle.close();
	}

	private async check(): Promise<void> {
		for (const { path, size, sha256 } of this.manifest.entries) {
			const damaged = (why: string) => new InputError('backup', `“${this.name}” is damaged: “${path}” ${why}.`, path);
			const entry = this.entries.get(path);
			if (!entry || entry.directory) throw damaged('is missing');
			if (entry.uncompressedSize !== size) throw damaged('has another size than it had');
			const tally = new Tally();
			const sink = new WritableStream<Uint8Array>({ write: (piece) => void tally.add(piece) });
			await entry.getData(sink, { checkSignature: true }).catch(() => {
				throw damaged('cannot be read');
			});
			if (tally.entry(path).sha256 !== sha256) throw damaged('is another than it was');
		}
		for (const { folder, rows } of this.manifest.houses) {
			const tables = KEPT.filter((table) => rows[table]).map((table) => `rows/${table}.jsonl`);
			for (const path of ['house.jsonl', 'members.jsonl', ...tables])
				if (!this.has(`${folder}/${path}`))
					throw new InputError('backup', `“${this.name}” is damaged: “${folder}/${path}” is missing.`, path);
		}
	}

	has = (path: string): boolean => this.manifest.entries.some((entry) => entry.path === path);
	hashOf = (path: string): string | undefined => this.manifest.entries.find((entry) => entry.path === path)?.sha256;
	async bytes(path: string): Promise<Uint8Array> {
		const entry = this.entries.get(path)!;
		if (entry.directory) throw new Error(`${path} is a folder.`);
		return entry.getData(new Uint8ArrayWriter());
	}

	/** How many bytes of files a house keeps. */
	bytesOfFiles = (folder: string): number =>
		this.manifest.entries.reduce((sum, { path, size }) => sum + (path.startsWith(`${folder}/files/`) ? size : 0), 0);

	/** The lines of an entry, some hundred at a time; nothing where it is not there. */
	async *lines(path: string): AsyncGenerator<string[]> {
		if (!this.has(path)) return;
		const entry = this.entries.get(path)!;
		if (entry.directory) return;
		const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
		const read = entry.getData(writable);
		read.catch(() => undefined);
		const decoder = new TextDecoder();
		let rest = '';
		for await (const piece of readable as unknown as AsyncIterable<Uint8Array>) {
			const lines = (rest + decoder.decode(piece, { stream: true })).split('\n');
			rest = lines.pop()!;
			if (lines.length) yield lines;
		}
		await read;
		if (rest) yield [rest];
	}
	async all(path: string): Promise<Record<string, unknown>[]> {
		const found: Record<string, unknown>[] = [];
		for await (const lines of this.lines(path))
			for (const line of lines) found.push(JSON.parse(line) as Record<string, unknown>);
		return found;
	}
}

export interface Restored {
	readonly houses: readonly { readonly id: string; readonly name: string; readonly rows: number }[];
	/** Whether the installation was empty, and is what was kept now. */
	readonly isWhole: boolean;
}

/**
 * Brings a backup in: an empty installation is what was kept from then on; in any other each house of it is a new one beside
 * those that there are, kept by `keeper`. All in one transaction, at whose end what is there is held against what was
 * kept: it is the same, or there is nothing of it. Throws InputError.
 * @param owner asked as the owner of the tables
 */
export async function restore(owner: Kysely<Database>, backup: Backup, keeper?: string): Promise<Restored> {
	const { manifest } = backup;
	const work = async (trx: Trx): Promise<Restored> => {
		await sql`set local statement_timeout = 0`.execute(trx);
		await sql`set local timezone = 'UTC'`.execute(trx);
		const { rows: schema } = await sql<{ name: string }>`select max(name) as name from kysely_migration`.execute(trx);
		if (manifest.schema > (schema[0]?.name ?? ''))
			throw new InputError(
				'backup',
				`“${backup.name}” was made by a newer Heptarch (${manifest.schema}). Bring this one up to date first.`,
				backup.name
			);
		// Nobody begins a house, or comes in, while it is asked whether there is anything.
		await sql`lock table houses, people, members in share row exclusive mode`.execute(trx);
		const isWhole = keeper === undefined && (await isEmpty(trx));
		if (isWhole) {
			await sql`delete from houses`.execute(trx);
			await sql`delete from people`.execute(trx);
		}
		// An operator who brings a house in sees to its room.
		if (keeper !== undefined)
			for (const house of manifest.houses) checkFits(house.name, backup.bytesOfFiles(house.folder));
		const first = keeper ?? (await firstKeeper(trx));
		if (keeper === undefined) await putPeople(trx, backup, isWhole);
		const houses: Restored['houses'][number][] = [];
		for (const house of manifest.houses) houses.push(await putHouse(trx, backup, house, isWhole, first));
		if (isWhole && manifest.secrets) await putSecrets(trx, backup);
		return { houses, isWhole };
	};
	try {
		return await owner.transaction().execute(work);
	} catch (error) {
		// PostgreSQL, Appendix A: *data exception*, *integrity constraint violation*. Rows that it does not take were not kept by it.
		const { code, message } = error as { code?: string; message: string };
		if (!/^2[23]/.test(code ?? '')) throw error;
		throw new InputError('backup', `“${backup.name}” is damaged: ${message}. Nothing was restored.`, backup.name);
	}
}

/** Whether there is nothing but what an installation begins with: one house with nothing in it, one person without a password. */
async function isEmpty(trx: Trx): Promise<boolean> {
	const { rows } = await sql<{
		is: boolean;
	}>`select (select count(*) from houses) <= 1 and (select count(*) from people) <= 1
		and not exists (select from accounts) and not exists (select from documents) and not exists (select from styles) as is`.execute(
		trx
	);
	return rows[0]!.is;
}
async function firstKeeper(trx: Trx): Promise<string | undefined> {
	const { rows } = await sql<{ id: string }>`select person_id as id from members
		where role = 'keeper' and left_at is null order by since limit 1`.execute(trx);
	return rows[0]?.id;
}

/** People that there are not yet; a name to sign in by that somebody else has by now does not come along. */
async function putPeople(trx: Trx, backup: Backup, isWhole: boolean): Promise<void> {
	for (const person of await backup.all('people.jsonl'))
		await sql`insert into people (id, name, email, email_verified, image, username, display_username, created_at, two_factor_enabled)
			select id, name, email, email_verified, image, username, display_username, created_at, false
			from jsonb_populate_record(null::people, ${JSON.stringify(
				isWhole
					? person
					: { ...person, username: null, display_username: null, email: `${String(person.id)}@restored.invalid` }
			)}::jsonb)
			on conflict do nothing`.execute(trx);
}

async function putSecrets(trx: Trx, backup: Backup): Promise<void> {
	for (const table of ['accounts', 'second_factors'])
		for await (const lines of backup.lines(`secrets/${table}.jsonl`))
			await sql`insert into ${sql.table(table)} select * from jsonb_populate_recordset(null::${sql.table(table)}, ${`[${lines.join()}]`}::jsonb)`.execute(
				trx
			);
	await sql`update people set two_factor_enabled = true where id in (select user_id from second_factors where verified)`.execute(
		trx
	);
	const [installation] = await backup.all('secrets/installation.jsonl');
	// Second factors are kept encrypted by it.
	await sql`update installation set secret = ${String(installation!.secret)}, closed_at = ${installation!.closed_at}::timestamptz`.execute(
		trx
	);
}

async function putHouse(
	trx: Trx,
	backup: Backup,
	{ id: was, name, folder, rows: counts }: Manifest['houses'][number],
	isWhole: boolean,
	keeper: string | undefined
): Promise<Restored['houses'][number]> {
	const damaged = (why: string) =>
		new InputError('backup', `“${backup.name}” is damaged: ${why}. Nothing was restored.`, folder);
	const { rows: taken } = await sql<{ id: string }>`select id from houses where id = ${was}::uuid`.execute(trx);
	const id = taken.length ? (await sql<{ id: string }>`select gen_random_uuid() as id`.execute(trx)).rows[0]!.id : was;
	const [house] = await backup.all(`${folder}/house.jsonl`);
	if (!house) throw damaged('a house has no row of its own');
	await putRows(trx, 'houses', { id }, [JSON.stringify(house)]);
	await actAs({ house: id, person: null }, async () => {
		await sql`select set_config('heptarch.house', ${id}, true)`.execute(trx);
		for (const table of KEPT) await putTable(trx, backup, `${folder}/rows/${table}.jsonl`, table, id);
		await putFiles(trx, backup, folder, id, damaged);
	});
	// What is new from here on is numbered after what came.
	for (const table of ['work_steps', 'house_log'])
		await sql`select setval(pg_get_serial_sequence(${table}, 'id'),
			greatest((select max(id) from ${sql.table(table)}), nextval(pg_get_serial_sequence(${table}, 'id'))))`.execute(trx);
	let sum = 0;
	for (const table of ['houses', ...KEPT] as const) {
		const path = table === 'houses' ? `${folder}/house.jsonl` : `${folder}/rows/${table}.jsonl`;
		const kept = backup.hashOf(path);
		const hash = createHash('sha256');
		let count = 0;
		for await (const lines of linesOf(trx, table, id)) {
			count += lines.length;
			hash.update(lines.map((line) => `${line}\n`).join(''));
		}
		if (table !== 'houses' && count !== (counts[table] ?? 0))
			throw damaged(`not every row of ${table} could be brought in`);
		// A backup of an older schema has rows of another form.
		if (kept !== undefined && hash.digest('hex') !== kept && (await isOfNow(trx, backup)))
			throw damaged(`rows of ${table} came out as others than were kept`);
		if (table !== 'houses') sum += count;
	}
	await putMembers(trx, backup, folder, id, isWhole, keeper);
	return { id, name, rows: sum };
}

const isOfNow = async (trx: Trx, { manifest }: Backup): Promise<boolean> => {
	const { rows } = await sql<{ name: string }>`select max(name) as name from kysely_migration`.execute(trx);
	return rows[0]?.name === manifest.schema;
};

async function putTable(trx: Trx, backup: Backup, path: string, table: string, house: string): Promise<void> {
	const waiting: string[] = [];
	for await (const lines of backup.lines(path))
		if (AT_ONCE.includes(table)) waiting.push(...lines);
		else
			for (let from = 0; from < lines.length; from += 500)
				await putRows(trx, table, { house_id: house }, lines.slice(from, from + 500));
	if (waiting.length) await putRows(trx, table, { house_id: house }, waiting);
}

/** Puts rows in; what they do not say begins as a new row does. */
async function putRows(trx: Trx, table: string, own: Record<string, string>, lines: readonly string[]): Promise<void> {
	const said = Object.keys(JSON.parse(lines[0]!) as object);
	const known = await columnsOf(trx, table);
	const columns = sql.join(
		[...Object.keys(own), ...known.filter((name) => said.includes(name))].map((name) => sql.ref(name))
	);
	await sql`insert into ${sql.table(table)} (${columns}) overriding system value
		select ${columns} from jsonb_populate_recordset(null::${sql.table(table)},
			(select jsonb_agg(line || ${JSON.stringify(own)}::jsonb) from jsonb_array_elements(${`[${lines.join()}]`}::jsonb) as line))`.execute(
		trx
	);
}

/** Contents of files, into the rows that came already; their name is what they are. */
async function putFiles(
	trx: Trx,
	backup: Backup,
	folder: string,
	house: string,
	damaged: (why: string) => InputError
): Promise<void> {
	const files = await trx.selectFrom('files').select('hash').where('house_id', '=', house).execute();
	for (const { hash } of files) {
		const path = `${folder}/files/${hash}`;
		if (!backup.has(path)) throw damaged(`the file ${hash} is missing`);
		const bytes = await backup.bytes(path);
		if (hashOf(bytes) !== hash) throw damaged(`the file ${hash} is another than its name says`);
		await putContents(trx, house, hash, bytes);
	}
}

/**
 * Who belongs to the house. In an installation that has other people, those of the house are named at what they did, and
 * nobody comes in by it but whoever brings it in.
 */
async function putMembers(
	trx: Trx,
	backup: Backup,
	folder: string,
	house: string,
	isWhole: boolean,
	keeper: string | undefined
): Promise<void> {
	for (const { person_id, name, role, since, left_at } of await backup.all(`${folder}/members.jsonl`)) {
		const person = String(person_id);
		await sql`insert into people (id, name, email) values (${person}::uuid, ${String(name)}, ${`${person}@restored.invalid`})
			on conflict do nothing`.execute(trx);
		await sql`insert into members (house_id, person_id, role, since, left_at)
			values (${house}::uuid, ${person}::uuid, ${String(role)}, ${String(since)}::timestamptz,
				${isWhole ? left_at : (left_at ?? sql`now()`)}::timestamptz)
			on conflict do nothing`.execute(trx);
	}
	if (isWhole || keeper === undefined) return;
	await sql`insert into members (house_id, person_id, role) values (${house}::uuid, ${keeper}::uuid, 'keeper')
		on conflict (house_id, person_id) do update set role = 'keeper', left_at = null`.execute(trx);
	await sql`insert into house_log (house_id, person_id, kind, words)
		values (${house}::uuid, ${keeper}, 'backup', ${`the house was brought in from a backup of ${backup.manifest.made.slice(0, 10)}`})`.execute(
		trx
	);
}
