import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import {
	missingColumn,
	renamed,
	withoutColumn,
	type ScheduleDefinition
} from '../../../../src/lib/core/schedule/definition.ts';
import { kindsOf, type DrawingObject } from '../../../../src/lib/core/schedule/objects.ts';
import {
	freeId,
	innerFrame,
	roomFor,
	withRenamed,
	type PlacedTable
} from '../../../../src/lib/core/schedule/placed.ts';
import { headingFor, proposeSchedule } from '../../../../src/lib/core/schedule/propose.ts';
import { makeRows } from '../../../../src/lib/core/schedule/rows.ts';
import { checkDefinition, checkPlaced } from '../../../../src/lib/core/schedule/validate.ts';
import { answered } from '../../../../src/lib/workbench/schedules.ts';

const facts = { scale: 1, name: '', names: new Map<string, string>(), symbols: new Set<string>() };
const WHOLE: ScheduleDefinition = {
	format: 'heptarch-schedule',
	version: 1,
	title: 'Plants',
	rows: 'merged',
	columns: [
		{ from: 'attribute', attribute: 'bed', name: 'Bed' },
		{ from: 'attribute', attribute: 'plant', name: 'Plant' },
		{ from: 'count', name: 'No.' },
		{ from: 'computed', name: 'Twice', formula: [{ column: 'No.' }, '×', { number: '2' }] },
		{ from: 'typed', name: 'Remark' }
	],
	sort: [
		{ by: 'Bed', order: 'rising' },
		{ by: 'No.', order: 'falling' }
	],
	groupBy: 'Bed',
	where: {
		all: [{ column: 'Bed', is: '!=', value: '' }, { not: { any: [{ column: 'Plant', is: '=', value: 'none' }] } }]
	}
};
const object = (id: string, attributes: Record<string, string>, kind = 'plant'): DrawingObject => ({
	key: `#${id}`,
	kind,
	layer: '',
	drawing: '',
	x: 0,
	y: 0,
	attributes
});
const OBJECTS = [
	object('1', { bed: 'N', plant: 'Fern' }),
	object('2', { bed: 'N', plant: 'Fern' }),
	object('3', { bed: 'S', plant: 'Lily' })
];

describe('a schedule’s definition', () => {
	it('renames a column wherever it is named, and back again it is the same', () => {
		const once = renamed(renamed(WHOLE, 'Bed', 'Place'), 'No.', 'Pieces');
		assert.equal(missingColumn(once), undefined);
		assert.ok(!/"(Bed|No\.)"/.test(JSON.stringify(once)), JSON.stringify(once));
		assert.deepEqual(renamed(renamed(once, 'Pieces', 'No.'), 'Place', 'Bed'), WHOLE);
		checkDefinition(once);
	});
	it('loses with a column what sorted, grouped or filtered by it', () => {
		const less = withoutColumn(WHOLE, 'Bed');
		assert.deepEqual(less.sort, [{ by: 'No.', order: 'falling' }]);
		assert.equal(less.groupBy, undefined);
		assert.equal(less.where, undefined);
		checkDefinition(less);
		assert.deepEqual(withoutColumn(WHOLE, 'Remark').where, WHOLE.where);
		assert.throws(() => checkDefinition(withoutColumn(WHOLE, 'No.')), /“Twice”: There is no column “No\.”/);
	});
	it('that filters by a column that is not there is refused, instead of listing nothing', () => {
		const wrong = { ...WHOLE, where: { not: { column: 'Gone', is: 'empty' } } } as ScheduleDefinition;
		assert.equal(missingColumn(wrong), 'Gone');
		assert.throws(() => makeRows(wrong, OBJECTS, facts), /There is no column “Gone” to sort, group or filter by/);
	});
	it('is checked where it comes in from outside', () => {
		for (const [wrong, words] of [
			[{ ...WHOLE, columns: [] }, /must NOT have fewer than 1 items/],
			[{ ...WHOLE, rows: 'some' }, /allowed values/],
			[{ ...WHOLE, more: 1 }, /must NOT have additional properties/],
			[[], /not a valid schedule/],
			[null, /not a valid schedule/]
		] as const)
			assert.throws(() => checkDefinition(wrong), words);
	});
});

describe('a table on a sheet', () => {
	const placed = (objects: readonly DrawingObject[]): PlacedTable => ({
		id: 'table-1',
		source: { from: 'objects', definition: WHOLE },
		rows: makeRows(WHOLE, objects, facts),
		at: { x: 1, y: 2 },
		corner: 'top-start',
		reads: 'down',
		widths: { Remark: 30 }
	});
	const type = (table: PlacedTable, plant: string, text: string): PlacedTable => ({
		...table,
		rows: {
			...table.rows,
			rows: table.rows.rows.map((row) =>
				row.cells[1]!.text === plant ? { ...row, cells: row.cells.map((cell, c) => (c === 4 ? { text } : cell)) } : row
			)
		}
	});
	const remarks = ({ rows }: PlacedTable) =>
		rows.rows.filter(({ role }) => role === 'body').map(({ cells }) => `${cells[1]!.text}: ${cells[4]!.text}`);

	it('keeps what was typed in a column, its width and its touches when the column is called otherwise', () => {
		const table = type(placed(OBJECTS), 'Fern', 'ordered');
		const r = table.rows.rows.findIndex(({ cells }) => cells[1]!.text === 'Fern');
		const own = { touches: [{ r, c: 4, set: { text: { italic: true } } }] };
		const other = withRenamed(table, 'Remark', 'State');
		assert.ok(other.source.from === 'objects');
		const now = makeRows(other.source.from === 'objects' ? other.source.definition : WHOLE, OBJECTS, facts);
		const next = answered(other, own, now, 'all');
		assert.deepEqual(remarks(next.placed), ['Fern: ordered', 'Lily: ']);
		assert.deepEqual(next.placed.widths, { State: 30 });
		assert.deepEqual(next.own, own);
		checkPlaced(next.placed);
	});
	it('gets an id that no other has', () => {
		assert.equal(freeId([]), 'table-1');
		assert.equal(freeId([{ id: 'table-1' }, { id: 'revisions' }]), 'table-3');
		assert.equal(freeId([{ id: 'table-3' }, { id: 'x' }]), 'table-4');
	});
	it('is put inside the innermost frame, or inside the edges where there is none', () => {
		const sheet = { width: 420, height: 297 };
		const outer = { x1: 5, y1: 5, x2: 415, y2: 292 };
		const inner = { x1: 20, y1: 10, x2: 410, y2: 287 };
		const edge = { x1: 0, y1: 0, x2: 420, y2: 297 };
		assert.deepEqual(innerFrame([edge, outer, inner], sheet), inner);
		assert.deepEqual(roomFor([outer, inner], sheet), { x1: 23, y1: 13, x2: 407, y2: 284 });
		assert.equal(innerFrame([edge], sheet), undefined, 'the paper itself is no frame');
		assert.deepEqual(roomFor([edge], sheet), { x1: 10, y1: 10, x2: 410, y2: 287 });
	});
	it('is checked where it comes in from outside', () => {
		const whole = placed(OBJECTS);
		for (const [wrong, words] of [
			[{ ...whole, id: '1 "><x' }, /pattern/],
			[{ ...whole, at: { x: Infinity, y: 0 } }, /not a valid table/],
			[{ ...whole, corner: 'middle' }, /not a valid table/],
			[{ ...whole, widths: { Bed: -4 } }, /not a valid table/],
			[{ ...whole, rows: { ...whole.rows, rows: [] } }, /one row at least/],
			[{ ...whole, source: { from: 'objects' } }, /not a valid table/]
		] as const)
			assert.throws(() => checkPlaced(wrong), words);
		assert.equal(checkPlaced(whole), whole);
	});
});

describe('a first proposal', () => {
	const many = Array.from({ length: 20 }, (_, i) =>
		object(String(i), { number: `N-${i}`, 'pot-size': `${i % 3} L`, ...(i < 4 && { rare: 'x' }) }, i % 2 ? 'a' : 'b')
	);
	const names = new Map([
		['a', { name: 'Alder' }],
		['b', { name: 'Birch' }]
	]);
	it('takes what most objects say and what does not tell every one apart', () => {
		const definition = proposeSchedule(kindsOf(many, names), []);
		assert.deepEqual(
			definition.columns.map(({ name }) => name),
			['Pot size', 'No.']
		);
		assert.equal(definition.kinds, undefined);
		checkDefinition(definition);
		assert.deepEqual(
			makeRows(definition, many, facts)
				.rows.slice(2)
				.map(({ cells }) => cells.map(({ text }) => text)),
			[
				['0 L', '7'],
				['1 L', '7'],
				['2 L', '6']
			]
		);
	});
	it('is of the kinds that are chosen, and called after one alone', () => {
		const definition = proposeSchedule(kindsOf(many, names), ['b']);
		assert.deepEqual([definition.title, definition.kinds], ['Birch', ['b']]);
	});
	it('says what objects are where they say nothing more', () => {
		const bare = [object('1', {}), object('2', {})];
		assert.deepEqual(
			proposeSchedule(kindsOf(bare, new Map()), []).columns.map(({ from }) => from),
			['kind', 'count']
		);
	});
	it('never has two columns of one name', () => {
		const twin = Array.from({ length: 6 }, (_, i) => object(String(i), { 'pot-size': '1', pot_size: '1', 'No.': 'x' }));
		checkDefinition(proposeSchedule(kindsOf(twin, new Map()), []));
		assert.equal(headingFor('pot-size'), headingFor('pot_size'));
	});
});
