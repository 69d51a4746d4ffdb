import assert from 'node:assert/strict';
import { request } from 'node:http';
import { after, before, describe, it } from 'node:test';
import { SCHEMAS } from '../../src/lib/server/http/requests.ts';
import { routes, textOf } from './routes.ts';
import { Application } from './support.ts';

const NOWHERE = '00000000-0000-4000-8000-000000000000';
/** What stands for `[…]` in a path. */
const PIECES = [
	'1.5',
	'-1',
	'99999999999',
	'__proto__',
	'constructor',
	'%00',
	'%ED%A0%80',
	'%F0%9F%8C%BF',
	' ',
	NOWHERE
];
/** Values that no field is meant for, or only some. */
const VALUES: readonly unknown[] = [
	null,
	true,
	-1,
	1.5,
	1e300,
	99_999_999_999,
	'',
	'\0',
	'a\ud800b',
	'__proto__',
	'x'.repeat(5_000),
	[],
	[[]],
	{},
	JSON.parse('{"__proto__": {"a": 1}, "constructor": 2}'),
	NOWHERE
];
const QUERIES = [
	'table=1.5',
	'table=99999999',
	'as=__proto__',
	'tables=,',
	'tables=999999',
	'paper=constructor',
	'travel=x',
	'choices=%7B',
	'choices=%5B%5D',
	'name=%00',
	'after=1.5',
	'after=99999999999999999999',
	'cursor=%00',
	'query=%00'
];

interface Schema {
	readonly type?: string | readonly string[];
	readonly enum?: readonly unknown[];
	readonly const?: unknown;
	readonly properties?: Readonly<Record<string, Schema>>;
	readonly items?: Schema;
	readonly pattern?: string;
	readonly minimum?: number;
	readonly minLength?: number;
}
/** Something that a schema lets pass, or nearly. */
function sample(schema: Schema): unknown {
	if (schema.const !== undefined) return schema.const;
	if (schema.enum) return schema.enum[0];
	const type = Array.isArray(schema.type) ? (schema.type[0] as string) : (schema.type as string);
	if (type === 'object')
		return Object.fromEntries(Object.entries(schema.properties ?? {}).map(([name, inner]) => [name, sample(inner)]));
	if (type === 'array') return schema.items ? [sample(schema.items)] : [];
	if (type === 'string') return schema.pattern?.includes('0-9a-f') ? NOWHERE : 'abc';
	if (type === 'boolean') return true;
	return Math.max(schema.minimum ?? 0, 1);
}
/** Not every value stands in every field, unless time is no matter; from field to field they change. */
const EVERY = process.env.HEPTARCH_RUNS ? 1 : 3;
let turn = 0;

/** A value with each of its inner values, and itself, in turn replaced by what does not belong there. */
function* wrong(value: unknown): Generator<unknown> {
	for (const bad of VALUES) if (turn++ % EVERY === 0) yield bad;
	if (Array.isArray(value))
		for (const [at, inner] of value.entries()) for (const bad of wrong(inner)) yield value.with(at, bad);
	else if (typeof value === 'object' && value !== null)
		for (const [name, inner] of Object.entries(value)) {
			const { [name]: _, ...rest } = value as Record<string, unknown>;
			yield rest;
			for (const bad of wrong(inner)) yield { ...value, [name]: bad };
		}
}

const apiRoutes = () => routes().filter(({ isPage }) => !isPage);

describe('every route, asked for what it is not meant for', () => {
	let application: Application;
	/** Somebody who may all, and somebody else who signs in and out and begins houses. */
	let cookies: { keeper: string; other: string };
	before(async () => {
		application = await Application.start('demo', {});
		cookies = { keeper: await application.signedIn(), other: await application.signedIn('keeper') };
	});
	after(() => application.stop());

	const failures: string[] = [];
	async function ask(method: string, path: string, body?: BodyInit, type = 'application/json') {
		const { origin } = application;
		const response = await fetch(origin + path, {
			method,
			...(body !== undefined && method !== 'GET' && { body }),
			headers: {
				'Content-Type': type,
				Origin: origin,
				Cookie: /^\/api\/(session|houses|me|enter)\b/.test(path) ? cookies.other : cookies.keeper
			},
			redirect: 'manual'
		});
		const text = await textOf(response);
		if (response.status >= 500)
			failures.push(`${method} ${path} ${String(body).slice(0, 300)}: ${response.status} ${text.slice(0, 200)}`);
		return response;
	}
	const ids = async (path: string) => {
		const found = (await (await fetch(application.origin + path, { headers: { Cookie: cookies.keeper } })).json()) as
			{ documents?: { id: string }[] } | { id: string }[];
		return (Array.isArray(found) ? found : found.documents!).map(({ id }) => id);
	};
	/** Several at a time, as they come. */
	async function all(asked: Iterable<() => Promise<unknown>>) {
		const left = asked[Symbol.iterator]();
		await Promise.all(
			Array.from({ length: 6 }, async () => {
				for (let next = left.next(); !next.done; next = left.next()) await next.value();
			})
		);
		assert.deepEqual(failures.splice(0).slice(0, 5), []);
	}

	it('in its path and its address', async () => {
		await all(
			apiRoutes().flatMap(({ method, path }) => {
				const paths = path.includes('[')
					? PIECES.map((piece) => path.replace(/\[\w+\]/g, piece))
					: QUERIES.map((query) => `${path}?${query}`);
				return paths.map((one) => () => ask(method, one, '{}'));
			})
		);
	});

	it('of what is there, with numbers and addresses that are not', async () => {
		const documents = await ids('/api/documents');
		const own: Record<string, string> = {
			documents: documents[0]!,
			drawings: documents[1]!,
			styles: (await ids('/api/styles'))[0]!
		};
		await all(
			apiRoutes()
				.filter(({ method, path }) => method === 'GET' && path.split('/')[2]! in own)
				.flatMap(({ method, path }) => {
					const there = path.replace('[id]', own[path.split('/')[2]!]!);
					return (there.includes('[') ? PIECES : ['']).flatMap((piece) => {
						const one = there.replace(/\[\w+\]/, piece);
						return (piece ? [''] : QUERIES).map((query) => () => ask(method, `${one}?${query}`));
					});
				})
		);
	});

	it('in every field of its body', async () => {
		const style = (await ids('/api/styles'))[0]!;
		const document = (await ids('/api/documents'))[0]!;
		function* asked() {
			for (const { method, path, kind, isFile } of apiRoutes()) {
				const id = path.includes('/styles/') ? style : document;
				// What takes something out by its path alone is left alone; everything else is asked of what is there.
				if (method === 'DELETE' && !kind) continue;
				const at = path.replace('[id]', id).replace(/\[\w+\]/g, '0');
				if (kind)
					for (const body of wrong(sample(SCHEMAS[kind] as Schema))) yield () => ask(method, at, JSON.stringify(body));
				if (kind || isFile)
					for (const body of ['', '{', 'null', '['.repeat(5_000)])
						for (const type of ['application/json', 'application/octet-stream'])
							yield () => ask(method, at, body, type);
				if (kind || isFile) yield () => ask(method, at, '{', 'text/plain');
			}
		}
		await all(asked());
	});

	it('by addresses that are none', async () => {
		const { hostname, port } = new URL(application.origin);
		for (const path of ['//', '///', '/%', '/\\', 'http://', '*', '/documents/%ff', '/..//..', '/?%'])
			await new Promise<void>((resolve, reject) => {
				request({ hostname, port, path }, (answer) => {
					answer.resume();
					assert.ok(answer.statusCode! < 500, path);
					answer.once('end', resolve);
				})
					.once('error', reject)
					.end();
			});
	});

	it('with more than it takes, and no length said', async () => {
		const piece = new Uint8Array(2 ** 20);
		let left = 66;
		const endless = new ReadableStream<Uint8Array>({
			pull: (controller) => (left-- > 0 ? controller.enqueue(piece) : controller.close())
		});
		const { origin } = application;
		const response = await fetch(`${origin}/api/documents?name=long.docx`, {
			method: 'POST',
			body: endless,
			headers: { 'Content-Type': 'application/octet-stream', Origin: origin, Cookie: cookies.keeper },
			duplex: 'half'
		} as RequestInit);
		assert.equal(response.status, 413);
		assert.match(((await response.json()) as { error: { message: string } }).error.message, /larger than 50 MB/);
	});
});
