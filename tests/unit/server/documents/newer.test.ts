import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Kysely } from 'kysely';
import { csvBytes, pageOf } from '../../formats/pages.ts';
import { InputError } from '../../../../src/lib/core/errors.ts';
import type { Database } from '../../../../src/lib/server/database.ts';
import { addDocument } from '../../../../src/lib/server/documents/add.ts';
import { listDocuments, loadDocument } from '../../../../src/lib/server/documents/list.ts';
import { previewNewer, putNewer } from '../../../../src/lib/server/documents/newer.ts';
import { addStep, moveToStep } from '../../../../src/lib/server/documents/steps.ts';
import { writeDocument } from '../../../../src/lib/server/documents/writing.ts';
import { ConflictError } from '../../../../src/lib/server/http/answers.ts';
import { listStyles } from '../../../../src/lib/server/styles/styles.ts';
import { takeOut } from '../../../../src/lib/server/tables/tables.ts';
import { ownDatabase } from '../../../database.ts';

const VISITORS = ['House|April|May', 'Lily court|1204|1420', 'Fern grotto|880|902', 'Total|2084|2322'];
const PLANTS = ['Plant|Bed|Height', 'Royal fern|North|140', 'Lady fern|South|90', 'Maidenhair|East|35'];
const COSTS = ['Item|Cost', 'Seed|12.00', 'Glass|30.50', 'Pots|9.25', 'Total|51.75'];
const DRAFT = ['Draft|Note', 'one|to be taken out', 'two|of this report'];

describe('a newer file in the place of a document’s', () => {
	let db: Kysely<Database>;
	before(async () => void ({ db } = await ownDatabase('demo')));
	after(() => db.destroy());
	const refused = (code: string) => (error: unknown) => error instanceof InputError && error.code === code;
	const ledger = async () => (await listStyles(db)).find(({ definition }) => definition.name === 'Season Ledger')!.id;

	it('has the looks, corrections and touches of the tables that it goes on with, as one step that is undone', async () => {
		const style = await ledger();
		const { id } = await addDocument(db, 'monthly.html', pageOf(VISITORS, PLANTS, COSTS, DRAFT));
		let { version } = await takeOut(db, id, 3, 0).then(() => loadDocument(db, id));
		({ version } = await addStep(db, id, version, 'dressed', {
			0: { style, partsOff: ['rowBand'], roles: { 2: 'note', 3: 'subtotal:1' } },
			1: {
				style,
				kinds: { 2: 'money' },
				touches: [
					{ r: 2, c: 1, set: { fill: { ink: '#ffee00' } } },
					{ r: 3, c: 2, set: { fill: { ink: '#00ee00' } } }
				]
			}
		}));
		// Tables changed places, a row and a column went, one came; what was taken out is still in the file.
		const newer = pageOf(
			DRAFT,
			['Plant|Height|Bed', 'Lady fern|91|South', 'Royal fern|140|North'],
			['House|June|July', 'Lily court|1100|1390', 'Fern grotto|750|811', 'Total|1850|2201'],
			['Guide|Tours', 'Zephyrine|12', 'Bo|9']
		);
		const seen = await previewNewer(db, id, 'monthly.html', newer);
		assert.deepEqual(
			seen.pairs.map(({ old, new: now }) => [old, now]),
			[
				[0, 2],
				[1, 1]
			]
		);
		assert.deepEqual(seen.takenOut, [0]);
		assert.deepEqual(
			seen.pairs.map(({ left }) => left),
			[[], ['1 touch']]
		);
		assert.equal((await loadDocument(db, id)).version, version, 'looking changes nothing');

		await putNewer(db, id, version, { name: 'monthly.html', bytes: newer });
		const now = await loadDocument(db, id);
		assert.deepEqual(
			now.tables.map(({ table }) => table.cells[0]!.text),
			['Plant', 'House', 'Guide'],
			'what was taken out stays out'
		);
		const [plants, visitors] = [now.state.tables[0]!, now.state.tables[1]!];
		assert.deepEqual([plants.style, visitors.style, now.state.tables[2]], [style, style, undefined]);
		assert.deepEqual([visitors.partsOff, visitors.roles], [['rowBand'], { 2: 'note', 3: 'subtotal:1' }]);
		assert.deepEqual(plants.kinds, { 1: 'money' }, 'its column stands elsewhere');
		assert.deepEqual(plants.touches, [{ r: 1, c: 2, set: { fill: { ink: '#ffee00' } } }]);
		const text = new TextDecoder().decode((await writeDocument(db, id)).bytes);
		assert.match(text, /Zephyrine/);
		assert.doesNotMatch(text, /Maidenhair|to be taken out/);
		const listed = async () => (await listDocuments(db, { find: 'Zephyrine' })).documents.map((one) => one.id);
		assert.deepEqual(await listed(), [id], 'it is found by what it says now');

		await moveToStep(db, id, now.version, now.step - 1);
		const back = await loadDocument(db, id);
		assert.deepEqual(
			back.tables.map(({ table }) => table.cells[0]!.text),
			['House', 'Plant', 'Item']
		);
		assert.equal(back.state.tables[0]!.style, style);
		assert.deepEqual(await listed(), []);
		const again = await moveToStep(db, id, back.version, now.step);
		assert.equal((await loadDocument(db, id)).tables.length, 3);
		assert.equal(again.state.tables[0]!.style, style);
	});

	it('of the same file changes nothing that anybody sees', async () => {
		const style = await ledger();
		const bytes = pageOf(VISITORS, COSTS);
		const { id } = await addDocument(db, 'same.html', bytes);
		const { version, state } = await addStep(db, id, 0, 'dressed', { 0: { style }, 1: { style, partsOff: ['total'] } });
		await putNewer(db, id, version, { name: 'same.html', bytes });
		const now = await loadDocument(db, id);
		assert.deepEqual(now.state.tables, state.tables);
		assert.deepEqual(
			(await previewNewer(db, id, 'same.html', bytes)).pairs.map(({ rows, left }) => [rows, left]),
			Array(2).fill([{ added: 0, gone: 0, changed: 0 }, []])
		);
	});

	it('goes by the pairs that somebody says', async () => {
		const style = await ledger();
		const { id } = await addDocument(db, 'said.html', pageOf(VISITORS, COSTS));
		const { version } = await addStep(db, id, 0, 'dressed', { 0: { style } });
		const newer = pageOf(VISITORS, COSTS);
		const pairs = [[0, 1]] as const;
		assert.deepEqual((await previewNewer(db, id, 'said.html', newer, pairs)).pairs[0]!.why, ['you said so']);
		await assert.rejects(
			putNewer(db, id, version, { name: 'said.html', bytes: newer, pairs: [[0, 7]] }),
			refused('request')
		);
		await putNewer(db, id, version, { name: 'said.html', bytes: newer, pairs });
		const { tables } = (await loadDocument(db, id)).state;
		assert.deepEqual([tables[0]?.style, tables[1]?.style], [undefined, style]);
	});

	it('is refused in words where it cannot be one, and where somebody saved meanwhile; nothing is lost', async () => {
		const { id } = await addDocument(db, 'kept.html', pageOf(VISITORS, COSTS));
		const put = (name: string, bytes: Uint8Array<ArrayBuffer>, version = 0) =>
			putNewer(db, id, version, { name, bytes });
		await assert.rejects(put('kept.csv', csvBytes(VISITORS)), refused('another-kind'));
		await assert.rejects(put('kept.html', pageOf()), refused('no-table'));
		await assert.rejects(put('other.html', pageOf(['Guide|Tours', 'Ada|12', 'Bo|9'])), refused('another-document'));
		await addStep(db, id, 0, 'meanwhile', { 0: { cleared: true } });
		await assert.rejects(put('kept.html', pageOf(VISITORS)), ConflictError);
		const { tables, state } = await loadDocument(db, id);
		assert.deepEqual([tables.length, state.tables[0]], [2, { cleared: true }]);
	});

	it('works for rows of text as well', async () => {
		const { id } = await addDocument(db, 'rows.csv', csvBytes(PLANTS));
		await putNewer(db, id, 0, { name: 'rows.csv', bytes: csvBytes([...PLANTS, 'Moss|West|3']) });
		assert.equal((await loadDocument(db, id)).tables[0]!.table.rows, 5);
	});
});
