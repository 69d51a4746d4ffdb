import { TextReader, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import { sql, type Kysely, type Transaction } from 'kysely';
import { tokensOf } from '../../core/share/tokens.ts';
import { canonicalStyle, styleText } from '../../core/style/canonical.ts';
import { selfContained } from '../../core/style/export.ts';
import { InputError } from '../../core/errors.ts';
import type { Database } from '../database.ts';
import { fileBytes, hashOf } from '../files/files.ts';
import { fileName } from '../http/files.ts';
import { actAs } from '../people/acting.ts';
import { findIn } from '../styles/styles.ts';
import { Tally, type Entry, type Manifest } from './manifest.ts';
import { KEPT, linesOf } from './tables.ts';

type Trx = Transaction<Database>;

export interface BackupWish {
	/** Only this house; all of the installation where absent. */
	readonly house?: string;
	/** With passwords and second factors, as they are kept; of a whole installation alone. */
	readonly secrets?: boolean;
}

/** What lets people in. */
const SECRETS = ['accounts', 'second_factors'] as const;

/**
 * Writes a backup: one moment of the database, while people go on working, as a zip of open formats. Rows are lines of JSON;
 * files are as they came; styles, editions and design tokens are there once more as files that stand alone, for reading.
 * @param owner asked as the owner of the tables
 */
export async function writeBackup(
	owner: Kysely<Database>,
	into: WritableStream<Uint8Array>,
	{ house, secrets = false }: BackupWish = {}
): Promise<Manifest> {
	const zip = new ZipWriter(into, { keepOrder: true });
	try {
		const manifest = await owner
			.transaction()
			.setIsolationLevel('repeatable read')
			.execute(async (trx) => {
				await sql`set local statement_timeout = 0`.execute(trx);
				await sql`set local idle_in_transaction_session_timeout = 0`.execute(trx);
				await sql`set local timezone = 'UTC'`.execute(trx);
				return new Writing(trx, zip).all(house, secrets);
			});
		await zip.add('manifest.json', new TextReader(JSON.stringify(manifest, null, '\t')));
		await zip.close();
		return manifest;
	} catch (error) {
		await into.abort(error).catch(() => undefined);
		throw error;
	}
}

class Writing {
	private readonly entries: Entry[] = [];
	constructor(
		private readonly trx: Trx,
		private readonly zip: ZipWriter<unknown>
	) {}

	async all(only: string | undefined, secrets: boolean): Promise<Manifest> {
		const { trx } = this;
		const houses = await trx
			.selectFrom('houses')
			.select(['id', 'name'])
			.$if(only !== undefined, (query) => query.where('id', '=', only!))
			.orderBy('created_at')
			.orderBy('id')
			.execute();
		if (!houses.length) throw new InputError('backup', 'There is no house to keep.');
		const { rows: schema } = await sql<{ name: string }>`select max(name) as name from kysely_migration`.execute(trx);
		const kept: Manifest['houses'][number][] = [];
		let number = 0;
		for (const { id, name } of houses) {
			const folder = `houses/${++number}`;
			kept.push({ id, name, folder, rows: await actAs({ house: id, person: null }, () => this.house(id, folder)) });
		}
		const people = only === undefined ? await this.lines('people.jsonl', this.people()) : 0;
		if (secrets && only === undefined) {
			for (const table of SECRETS) await this.lines(`secrets/${table}.jsonl`, this.rowsOf(table));
			await this.lines('secrets/installation.jsonl', this.rowsOf('installation'));
		}
		return {
			format: 'heptarch-backup',
			version: 1,
			made: new Date().toISOString(),
			schema: schema[0]?.name ?? '',
			secrets: secrets && only === undefined,
			houses: kept,
			people,
			entries: this.entries
		};
	}

	private async house(house: string, folder: string): Promise<Record<string, number>> {
		const { trx } = this;
		const rows: Record<string, number> = {};
		await this.lines(`${folder}/house.jsonl`, linesOf(trx, 'houses', house));
		await this.lines(`${folder}/members.jsonl`, this.members(house));
		for (const table of KEPT)
			rows[table] = await this.lines(`${folder}/rows/${table}.jsonl`, linesOf(trx, table, house));
		const files = await trx.selectFrom('files').select('hash').where('house_id', '=', house).orderBy('hash').execute();
		for (const { hash } of files) {
			const bytes = await fileBytes(trx, hash);
			if (hashOf(bytes) !== hash)
				throw new InputError(
					'backup',
					`The file ${hash} is not as it was kept; npm run check-store says whose it is.`,
					hash
				);
			await this.bytes(`${folder}/files/${hash}`, bytes);
		}
		await this.readable(house, folder);
		return rows;
	}

	/** What is there once more, for whoever has no Heptarch. */
	private async readable(house: string, folder: string): Promise<void> {
		const { trx } = this;
		const own = await trx.selectFrom('houses').selectAll().where('id', '=', house).executeTakeFirstOrThrow();
		const { inks, type_roles: typeRoles, locale, former, name } = own;
		const of = { inks, typeRoles, locale, former };
		await this.text(
			`${folder}/${fileName(name) || 'house'}.tokens.json`,
			JSON.stringify(tokensOf({ ...of, name } as never), null, 2)
		);
		const rows = await trx
			.selectFrom('styles')
			.select(['id', 'name', 'definition'])
			.where('house_id', '=', house)
			.orderBy('id')
			.execute();
		const find = findIn(rows);
		for (const { id, definition } of rows) {
			const draft = canonicalStyle(selfContained(definition, of, find));
			await this.text(`${folder}/styles/${id}.heptarch.json`, styleText(draft));
			const editions = await trx
				.selectFrom('editions')
				.select(['number', 'frozen'])
				.where('house_id', '=', house)
				.where('style_id', '=', id)
				.orderBy('number')
				.execute();
			for (const { number, frozen } of editions)
				await this.text(`${folder}/styles/${id} edition ${number}.heptarch.json`, styleText(frozen));
		}
	}

	private async *members(house: string): AsyncGenerator<string[]> {
		const { rows } = await sql<{ line: string }>`
			select jsonb_build_object('person_id', p.id, 'name', p.name, 'role', m.role, 'since', m.since, 'left_at', m.left_at)::text as line
			from members m join people p on p.id = m.person_id where m.house_id = ${house}::uuid order by p.id`.execute(this.trx);
		yield rows.map(({ line }) => line);
	}
	private async *people(): AsyncGenerator<string[]> {
		const { rows } = await sql<{ line: string }>`
			select (to_jsonb(p) - 'two_factor_enabled' - 'updated_at')::text as line from people p order by id`.execute(this.trx);
		yield rows.map(({ line }) => line);
	}
	private async *rowsOf(table: string): AsyncGenerator<string[]> {
		const { rows } = await sql<{ line: string }>`
			select to_jsonb(t)::text as line from ${sql.table(table)} t order by to_jsonb(t)::text`.execute(this.trx);
		yield rows.map(({ line }) => line);
	}

	private async lines(path: string, rows: AsyncIterable<string[]>): Promise<number> {
		const tally = new Tally();
		let count = 0;
		const encoder = new TextEncoder();
		const iterator = rows[Symbol.asyncIterator]();
		const readable = new ReadableStream<Uint8Array>({
			async pull(controller) {
				const { value, done } = await iterator.next();
				if (done) return controller.close();
				count += value.length;
				controller.enqueue(tally.add(encoder.encode(value.map((line) => `${line}\n`).join(''))));
			}
		});
		await this.zip.add(path, readable as never);
		this.entries.push(tally.entry(path));
		return count;
	}
	private text = (path: string, text: string) => this.bytes(path, new TextEncoder().encode(text));
	private async bytes(path: string, bytes: Uint8Array): Promise<void> {
		const tally = new Tally();
		await this.zip.add(path, new Uint8ArrayReader(tally.add(bytes)));
		this.entries.push(tally.entry(path));
	}
}
