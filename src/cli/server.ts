import { existsSync } from 'node:fs';
import { basename } from 'node:path';
import { InputError } from '../lib/core/errors.ts';
import { plural, pluralWord } from '../lib/core/words.ts';
import { parseTables } from './apply.ts';
import type { Arguments, ExitCode } from './command.ts';
import { onlyFile, readBytes, required, writeWhole } from './files.ts';

/** What `--server` does, for the usage. */
export const SERVER_USAGE =
	'With --server ADDRESS, and a token of it in HEPTARCH_TOKEN, a house does it: apply FILE --style NAME --out OUT adds the file there, gives it the style and takes it back; read, figures and check are asked of a DOCUMENT of the house by its name, or of a FILE that is added; census of the whole house.';

const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

interface Named {
	readonly id: string;
	readonly name: string;
}
interface Page<T> {
	readonly items: readonly T[];
	readonly next: string | null;
}

/** A house at a server, asked as a program. Throws InputError with what the server says. */
class Server {
	private readonly base: string;
	private readonly token: string;
	constructor(address: string) {
		let url: URL;
		try {
			url = new URL(address);
		} catch {
			throw new InputError('usage', `--server takes an address such as https://tables.example.org, not “${address}”.`);
		}
		this.base = `${url.origin}/api/v1`;
		const token = process.env.HEPTARCH_TOKEN;
		if (!token) throw new InputError('usage', 'HEPTARCH_TOKEN is not set: a keeper of the house makes a token for it.');
		this.token = token;
	}

	async ask(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Response> {
		const isFile = body instanceof Uint8Array;
		let response: Response;
		try {
			response = await fetch(this.base + path, {
				method,
				redirect: 'error',
				headers: {
					Authorization: `Bearer ${this.token}`,
					...(body !== undefined && { 'Content-Type': isFile ? 'application/octet-stream' : 'application/json' }),
					...headers
				},
				...(body !== undefined && { body: isFile ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body) })
			});
		} catch {
			throw new InputError('server', `${this.base} does not answer.`);
		}
		if (response.ok) return response;
		const { detail } = (await response.json().catch(() => ({}))) as { detail?: string };
		throw new InputError('server', detail ?? `${this.base} refused this (${response.status}).`);
	}
	async get<T>(path: string): Promise<T> {
		return (await this.ask('GET', path)).json() as Promise<T>;
	}

	/** All that a list has, page after page. */
	async *all<T>(path: string): AsyncGenerator<T> {
		for (let after: string | null = ''; after !== null;) {
			const page: Page<T> = await this.get(
				`${path}${after && `${path.includes('?') ? '&' : '?'}after=${encodeURIComponent(after)}`}`
			);
			yield* page.items;
			after = page.next;
		}
	}
	async named(list: string, name: string, what: string): Promise<Named> {
		for await (const one of this.all<Named>(list)) if (one.id === name || one.name === name) return one;
		throw new InputError('server', `The house has no ${what} “${name}”.`, name);
	}

	/** A file that is added, once however often this is tried; its id. */
	async add(file: string): Promise<string> {
		const answer = await this.ask(
			'POST',
			`/documents?name=${encodeURIComponent(basename(file))}`,
			await readBytes(file),
			{
				'Idempotency-Key': crypto.randomUUID()
			}
		);
		return ((await answer.json()) as Named).id;
	}
	/** A document of the house, or a file that is added to it. */
	async document(named: string): Promise<string> {
		if (ID.test(named)) return named;
		if (existsSync(named)) return this.add(named);
		return (await this.named(`/documents?find=${encodeURIComponent(named)}`, named, 'document')).id;
	}
}

interface Account {
	readonly remarks: readonly string[];
	readonly tables: readonly { readonly index: number; readonly differences: readonly unknown[] }[];
}

async function apply(server: Server, args: Arguments): Promise<ExitCode> {
	const usage = 'heptarch apply FILE --server ADDRESS --style NAME [--tables 1,3-5] --out OUT [--json]';
	const file = onlyFile(args, usage);
	const out = required(args, 'out', usage);
	const style = await server.named('/styles', required(args, 'style', usage), 'style');
	const document = await server.add(file);
	const { tables } = args.values;
	const { items } = await server.get<Page<unknown>>(`/documents/${document}/tables`);
	await server.ask(
		'POST',
		`/documents/${document}/apply`,
		{ style: style.id, ...(typeof tables === 'string' && { tables: parseTables(tables, items.length) }) },
		{ 'If-Match': '*' }
	);
	const as = `as=${encodeURIComponent(out.split('.').at(-1)!.toLowerCase())}`;
	const account = await server.get<Account>(`/documents/${document}/account?${as}`);
	const taken = await server.ask('GET', `/documents/${document}/file?${as}`);
	await writeWhole(out, new Uint8Array(await taken.arrayBuffer()));
	const differences = account.tables.reduce((sum, table) => sum + table.differences.length, 0);
	if (args.values.json) console.log(JSON.stringify({ out, document, style: style.name, ...account }, null, 2));
	else {
		for (const remark of account.remarks) console.log(remark);
		console.log(`${account.tables.length} of ${plural(items.length, 'table')} in “${style.name}”, written to ${out}.`);
		console.log(`Read-back: ${differences || 'no'} ${pluralWord(differences, 'difference')}.`);
	}
	return differences ? 1 : 0;
}

async function tablesOf<T>(server: Server, args: Arguments, more: string): Promise<{ id: string; tables: T[] }> {
	const id = await server.document(onlyFile(args, 'heptarch read|figures DOCUMENT --server ADDRESS [--json]'));
	const { items } = await server.get<Page<{ index: number }>>(`/documents/${id}/tables`);
	const tables: T[] = [];
	for (const { index } of items) tables.push(await server.get<T>(`/documents/${id}/tables/${index}${more}`));
	return { id, tables };
}

async function read(server: Server, args: Arguments): Promise<ExitCode> {
	const { id, tables } = await tablesOf<{ table: { rows: string[]; columns: { kind: string; name?: string }[] } }>(
		server,
		args,
		''
	);
	if (args.values.json)
		console.log(JSON.stringify({ document: id, tables: tables.map(({ table }) => table) }, null, 2));
	else
		tables.forEach(({ table: { rows, columns } }, index) => {
			console.log(`Table ${index + 1}: ${rows.length} rows × ${columns.length} columns`);
			console.log(`  rows: ${rows.join(', ')}`);
			console.log(`  columns: ${columns.map(({ kind, name }) => (name ? `${name} (${kind})` : kind)).join(', ')}`);
		});
	return 0;
}

interface Sums {
	readonly index: number;
	readonly figures: readonly unknown[];
	readonly sums: readonly {
		readonly r: number;
		readonly c: number;
		readonly should: string | null;
		readonly says: string;
		readonly right: boolean | null;
	}[];
}
async function figures(server: Server, args: Arguments): Promise<ExitCode> {
	const { locale } = args.values;
	const { tables } = await tablesOf<Sums>(
		server,
		args,
		`/figures${typeof locale === 'string' ? `?locale=${encodeURIComponent(locale)}` : ''}`
	);
	if (args.values.json) console.log(JSON.stringify({ tables }, null, 2));
	else
		for (const { index, figures: found, sums } of tables) {
			console.log(`Table ${index + 1}: ${plural(found.length, 'figure')}.`);
			for (const { r, c, should, says, right } of sums)
				if (right === false) console.log(`    row ${r + 1}, column ${c + 1}: says ${says}, should be ${should}.`);
		}
	return tables.some(({ sums }) => sums.some(({ right }) => right === false)) ? 1 : 0;
}

async function check(server: Server, args: Arguments): Promise<ExitCode> {
	const id = await server.document(onlyFile(args, 'heptarch check DOCUMENT --server ADDRESS [--json]'));
	const { items } = await server.get<Page<{ table: number; words: string }>>(`/documents/${id}/findings`);
	if (args.values.json) console.log(JSON.stringify({ document: id, findings: items }, null, 2));
	else {
		for (const { table, words } of items) console.log(`table ${table + 1}: ${words}`);
		console.log(items.length ? `${plural(items.length, 'finding')}.` : 'Nothing to mention.');
	}
	return items.length ? 1 : 0;
}

async function census(server: Server, args: Arguments): Promise<ExitCode> {
	const { looks, facts } = await server.get<{ looks: { all: number; groups: unknown[] }; facts: object }>(
		'/census/looks'
	);
	if (args.values.json) console.log(JSON.stringify({ facts, ...looks }, null, 2));
	else console.log(`${plural(looks.all, 'table')}, ${plural(looks.groups.length, 'look')}.`);
	return looks.groups.length > 1 ? 1 : 0;
}

const COMMANDS: Readonly<Record<string, (server: Server, args: Arguments) => Promise<ExitCode>>> = {
	apply,
	read,
	figures,
	check,
	census
};

/** Does a command at a server. Throws InputError where it is not for one. */
export async function atServer(command: string, address: string, args: Arguments): Promise<ExitCode> {
	const does = COMMANDS[command];
	if (!does)
		throw new InputError(
			'usage',
			`“${command}” is not done at a server; these are: ${Object.keys(COMMANDS).join(', ')}.`
		);
	return does(new Server(address), args);
}
