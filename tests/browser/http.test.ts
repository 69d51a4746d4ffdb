import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { handbook } from '../../demo/documents/handbook.ts';
import { readDocx } from '../../src/lib/formats/docx/read.ts';
import { docx, p } from '../unit/formats/documents.ts';
import { zipOf } from '../unit/formats/zip.ts';
import { Application } from './support.ts';

interface Failure {
	error: { message: string; code: string; where?: string; current?: unknown };
}

/** The server's routes, as a program that talks to them finds them. */
describe('the routes', () => {
	let origin: string;
	let application: Application;
	let bomb: Uint8Array<ArrayBuffer>;
	before(async () => {
		// Packed before anything is asked: the server drops a connection that says nothing for as long as this can take.
		bomb = await zipOf({ 'word/document.xml': new Uint8Array(260 * 2 ** 20) });
		application = await Application.start('demo', {});
		({ origin } = application);
	});
	after(() => application.stop());
	const send = (method: string, path: string, body?: unknown) =>
		fetch(origin + path, {
			method,
			...(body !== undefined && {
				body: body instanceof Uint8Array ? new Blob([body as Uint8Array<ArrayBuffer>]) : JSON.stringify(body)
			}),
			headers: {
				'Content-Type': body instanceof Uint8Array ? 'application/octet-stream' : 'application/json',
				Origin: origin
			}
		});
	const upload = (bytes: Uint8Array, name = 'x.docx') =>
		send('POST', `/api/documents?name=${encodeURIComponent(name)}`, bytes);
	async function refused(response: Response, status: number, code: string, pattern: RegExp): Promise<Failure['error']> {
		assert.equal(response.status, status);
		const { error } = (await response.json()) as Failure;
		assert.equal(error.code, code);
		assert.match(error.message, pattern);
		assert.match(error.message, /[.?]$/, 'a whole sentence');
		return error;
	}
	const documents = async () =>
		((await (await send('GET', '/api/documents')).json()) as { documents: { id: string; name: string }[] }).documents;
	const styles = async () =>
		(await (await send('GET', '/api/styles')).json()) as {
			id: string;
			version: number;
			definition: { name: string };
		}[];

	it('publish the schemas, and what they serve is valid by them', async () => {
		const schema = await (await send('GET', '/schema/style.json')).json();
		const validate = new Ajv2020({ allowUnionTypes: true }).compile(schema);
		for (const { id } of await styles()) {
			const style = await (await send('GET', `/api/styles/${id}/file`)).json();
			assert.ok(validate(style), JSON.stringify(validate.errors));
		}
		for (const name of ['table', 'schedule']) assert.equal((await send('GET', `/schema/${name}.json`)).status, 200);
		for (const none of ['__proto__', 'constructor', 'other'])
			await refused(await send('GET', `/schema/${none}.json`), 404, 'not-found', /There are these schemas/);
	});

	it('refuse files that are none, each with its reason, and keep nothing of them', async () => {
		const before = (await documents()).length;
		const good = await handbook();
		await refused(
			await upload(new TextEncoder().encode('Dear reader')),
			422,
			'not-a-package',
			/does not begin like one/
		);
		const compound = (name: string) =>
			new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, ...[...name].flatMap((letter) => [letter.charCodeAt(0), 0])]);
		await refused(await upload(compound('EncryptedPackage')), 422, 'encrypted', /password/);
		await refused(await upload(compound('WordDocument')), 422, 'older-format', /older binary format/);
		await refused(await upload(good.slice(0, good.length / 2)), 422, 'truncated', /incomplete/);
		await refused(await upload(bomb), 413, 'too-large', /zip bomb/);
		await refused(await upload(await zipOf({ 'a.txt': 'x' })), 422, 'no-main-part', /no main document part/);
		await refused(await upload(await docx({ body: p('only text') })), 422, 'no-table', /no table/);
		await refused(await upload(new Uint8Array(51 * 2 ** 20)), 413, 'too-large', /larger than 50 MB/);
		await refused(await upload(new Uint8Array()), 422, 'empty', /is empty/);
		assert.equal((await documents()).length, before);
	});

	it('refuse styles that are not valid, circles of bases, and names that are taken', async () => {
		const blank = { format: 'heptarch-style', version: 1, name: 'A', parts: {} };
		const count = (await styles()).length;
		const error = await refused(
			await send('POST', '/api/styles', { definition: { ...blank, parts: { ground: { fill: { hue: 1 } } } } }),
			422,
			'style',
			/“hue” is not a property/
		);
		assert.equal(error.where, '/parts/ground/fill');
		await refused(
			await send('POST', '/api/styles', {
				definition: { ...blank, basedOn: 'B', bases: [{ ...blank, name: 'B', basedOn: 'A' }] }
			}),
			422,
			'base-cycle',
			/A → B → A/
		);
		await refused(
			await send('POST', '/api/styles', { definition: { ...blank, name: 'season ledger' } }),
			409,
			'name-taken',
			/already has a style/
		);
		await refused(await send('POST', '/api/styles', { paint: true }), 422, 'request', /not as it should be/);
		assert.equal((await styles()).length, count);
	});

	it('tell the second of two who save one style, and say where it stands', async () => {
		const { id, version, definition } = (await styles()).find(
			({ definition }) => definition.name === 'Herbarium Sheet'
		)!;
		assert.equal(
			(await send('PUT', `/api/styles/${id}`, { version, from: 1, at: 1, steps: [{ label: 'changed', definition }] }))
				.status,
			200
		);
		const error = await refused(
			await send('PUT', `/api/styles/${id}`, { version, from: 1, at: 1, steps: [{ label: 'changed', definition }] }),
			409,
			'conflict',
			/changed in another window/
		);
		const { last, ...standing } = error.current as { last: { label: string } };
		assert.deepEqual([standing, last.label], [{ step: 1, version: version + 1 }, 'changed']);
	});

	it('give the file back as it came where nothing is worn, and styled where something is', async () => {
		const bytes = await handbook();
		const { id } = (await (await upload(bytes, 'Näme "x".docx')).json()) as { id: string };
		const untouched = await send('GET', `/api/documents/${id}/file`);
		assert.deepEqual(new Uint8Array(await untouched.arrayBuffer()), bytes);
		assert.match(untouched.headers.get('content-disposition')!, /filename\*=UTF-8''N%C3%A4me%20%22x%22\.docx/);
		const style = (await styles()).find(({ definition }) => definition.name === 'Quiet Lines')!;
		const step = {
			version: 0,
			label: 'all three',
			tables: { 0: { style: style.id }, 1: { style: style.id }, 2: { style: style.id } }
		};
		assert.equal((await send('POST', `/api/documents/${id}/steps`, step)).status, 201);
		await refused(await send('POST', `/api/documents/${id}/steps`, step), 409, 'conflict', /changed in another window/);
		const account = (await (await send('GET', `/api/documents/${id}/account`)).json()) as {
			tables: { differences: [] }[];
		};
		assert.deepEqual(
			account.tables.map(({ differences }) => differences.length),
			[0, 0, 0]
		);
		const styled = await readDocx(new Uint8Array(await (await send('GET', `/api/documents/${id}/file`)).arrayBuffer()));
		assert.deepEqual(
			styled.tables.map(({ wornName }) => wornName),
			Array(3).fill('Quiet Lines')
		);
		assert.equal((await send('PUT', `/api/documents/${id}/step`, { version: 1, to: 0 })).status, 200);
		assert.equal((await send('DELETE', `/api/documents/${id}`)).status, 200);
		await refused(await send('GET', `/api/documents/${id}/file`), 404, 'not-found', /no longer here/);
	});

	it('run nothing from outside: a strict policy, and names that are only names', async () => {
		const response = await send('GET', '/documents');
		const policy = response.headers.get('content-security-policy')!;
		assert.match(policy, /script-src 'self' 'nonce-/);
		assert.doesNotMatch(policy, /unsafe-eval|script-src[^;]*unsafe-inline|style-src-elem[^;]*unsafe-inline/);
		assert.equal(response.headers.get('x-content-type-options'), 'nosniff');
		const { id } = (await (await upload(await handbook(), '<img src=x onerror=alert(1)>.docx')).json()) as {
			id: string;
		};
		const page = await (await send('GET', '/documents')).text();
		assert.ok(!page.includes('<img src=x'));
		const other = (await (await upload(await handbook(), '../../etc/Beds\r\n.docx')).json()) as { id: string };
		const kept = ((await (await send('GET', '/api/documents')).json()) as { documents: { id: string; name: string }[] })
			.documents;
		assert.equal(kept.find((one) => one.id === other.id)?.name, 'Beds');
		await send('DELETE', `/api/documents/${other.id}`);
		await send('DELETE', `/api/documents/${id}`);
	});
});
