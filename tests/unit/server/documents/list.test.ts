import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Kysely } from 'kysely';
import { InputError } from '../../../../src/lib/core/errors.ts';
import type { Database } from '../../../../src/lib/server/database.ts';
import { addDocument } from '../../../../src/lib/server/documents/add.ts';
import {
	DOCUMENT_ORDERS,
	documentsFound,
	listDocuments,
	type DocumentQuery,
	type DocumentSummary
} from '../../../../src/lib/server/documents/list.ts';
import { archiveDocument } from '../../../../src/lib/server/documents/shelf.ts';
import { ownDatabase } from '../../../database.ts';

const csv = (text: string) => new TextEncoder().encode(text) as Uint8Array<ArrayBuffer>;

describe('the list of documents', () => {
	let db: Kysely<Database>;
	before(async () => {
		({ db } = await ownDatabase('demo'));
		// Alike in everything that a list can be sorted by, but for their ids.
		for (let i = 0; i < 9; i++)
			await addDocument(db, `Same ${i % 2}.csv`, csv(`Lot,Seed\nTX-${i}0,Ferns of lily court\n`));
	});
	after(() => db.destroy());
	const through = async (query: DocumentQuery) => {
		const all: DocumentSummary[] = [];
		for (let after: string | null | undefined; after !== null;) {
			const page = await listDocuments(db, { ...query, ...(after && { after }) });
			assert.ok(page.documents.length <= query.most!);
			all.push(...page.documents);
			after = page.next;
		}
		return all;
	};
	const names = async (find: string, more: DocumentQuery = {}) =>
		(await listDocuments(db, { find, ...more })).documents.map(({ name }) => name);

	for (const sort of DOCUMENT_ORDERS)
		for (const down of [false, true])
			it(`by ${sort}, ${down ? 'down' : 'up'}: page after page, every document once and in order`, async () => {
				const whole = await through({ sort, down, most: 100 });
				assert.equal(new Set(whole.map(({ id }) => id)).size, 16);
				for (const most of [1, 2, 5, 16]) assert.deepEqual(await through({ sort, down, most }), whole);
				const key = (one: DocumentSummary) => (sort === 'styled' ? one.styled / one.tables : one[sort]);
				const keys = whole.map(key);
				const inOrder = keys.toSorted((a, b) =>
					sort === 'name' ? String(a).localeCompare(String(b)) : a < b ? -1 : a > b ? 1 : 0
				);
				assert.deepEqual(keys, down ? inOrder.reverse() : inOrder);
			});

	it('is searched by all of some words: in names, in styles, in the text of tables, in whatever form', async () => {
		assert.equal((await names('same')).length, 9);
		assert.equal((await names('AME 1')).length, 4);
		assert.equal((await names('tx-30')).length, 1);
		assert.equal((await names('fern same')).length, 9, 'ferns is found by fern');
		assert.equal((await names('fern nowhere')).length, 0);
		assert.deepEqual((await names('season')).slice(0, 1), await names('season', { most: 1 }));
		for (const odd of ["'", '\\', '%', '_', ':*', '& | !', '<->', "a'b", '()', '   ', '€'.repeat(400)])
			assert.ok(Array.isArray(await names(odd)), odd);
		assert.equal((await names('%')).length, 0);
	});

	it('says how much there is, and what is put aside', async () => {
		const { documents, counts } = await documentsFound(db, { find: 'same', most: 3 });
		assert.deepEqual([documents.length, counts.found, counts.atWork, counts.aside], [3, 9, 16, 0]);
		await archiveDocument(db, documents[0]!.id, true);
		const after = await documentsFound(db, { find: 'same' });
		assert.deepEqual([after.counts.found, after.counts.atWork, after.counts.aside], [8, 15, 1]);
		assert.deepEqual((await names('', { archived: true })).length, 1);
		assert.deepEqual(
			new Set((await listDocuments(db, { kinds: ['csv'] })).documents.map(({ kind }) => kind)),
			new Set(['csv'])
		);
		assert.deepEqual(await names('', { kinds: [] }), []);
	});

	it('refuses a page after what is no end of one', async () => {
		for (const after of ['x', '', 'W10', Buffer.from('[1,2]').toString('base64url')])
			await assert.rejects(listDocuments(db, { after }), (error) => error instanceof InputError, after);
	});
});
