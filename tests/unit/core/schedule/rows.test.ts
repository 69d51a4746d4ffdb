import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { InputError } from '../../../../src/lib/core/errors.ts';
import type { Formula } from '../../../../src/lib/core/values/formula.ts';
import type { ScheduleColumn, ScheduleDefinition } from '../../../../src/lib/core/schedule/definition.ts';
import { objectKey, matchObjects, type DrawingObject } from '../../../../src/lib/core/schedule/objects.ts';
import { makeRows, MOST_ROWS, type ScheduleRows } from '../../../../src/lib/core/schedule/rows.ts';
import { standing, tableOf } from '../../../../src/lib/core/schedule/table.ts';
import { gridFault } from '../../../../src/lib/core/table/grid.ts';

const object = (key: string, attributes: Record<string, string>, more: Partial<DrawingObject> = {}): DrawingObject => ({
	key: `#${key}`,
	kind: 'lamp',
	layer: 'Lamps',
	drawing: '',
	x: 10,
	y: 20,
	attributes,
	...more
});
const LAMPS = [
	object('a', { circuit: 'C2', type: 'post', watt: '18 W' }),
	object('b', { circuit: 'C10', type: 'bollard', watt: '9 W' }),
	object('c', { circuit: 'C2', type: 'post', watt: '18 W' }),
	object('d', { circuit: 'C2', type: 'bollard', watt: '9.5 W' }, { kind: 'spike', x: 30 })
];
const facts = {
	scale: 200,
	name: 'Plan',
	names: new Map([
		['lamp', 'Lamp'],
		['spike', 'Spike light']
	]),
	symbols: new Set(['lamp'])
};
const attribute = (name: string, more: Partial<ScheduleColumn> = {}) =>
	({ from: 'attribute', attribute: name, name, ...more }) as ScheduleColumn;
const definition = (columns: ScheduleColumn[], more: Partial<ScheduleDefinition> = {}): ScheduleDefinition => ({
	format: 'heptarch-schedule',
	version: 1,
	title: '',
	rows: 'merged',
	columns,
	...more
});
const texts = ({ rows }: ScheduleRows) => rows.map(({ cells }) => cells.map(({ text }) => text).join(' | '));

describe('a schedule’s rows', () => {
	it('merge what says the same, with a count and a sum with its unit', () => {
		const rows = makeRows(
			definition(
				[attribute('type'), { from: 'count', name: 'No.' }, { from: 'sum', attribute: 'watt', name: 'Load' }],
				{
					total: true
				}
			),
			LAMPS,
			facts
		);
		assert.deepEqual(texts(rows), [
			'type | No. | Load',
			'post | 2 | 36 W',
			'bollard | 2 | 18.5 W',
			'Total | 4 | 54.5 W'
		]);
		assert.deepEqual(rows.rows[1]!.objects, ['#a', '#c']);
	});
	it('list each object, where it stands and what it is', () => {
		const rows = makeRows(
			definition(
				[
					{ from: 'kind', name: 'What' },
					{ from: 'symbol', name: 'S' },
					{ from: 'x', name: 'x' },
					{ from: 'y', name: 'y' },
					{ from: 'layer', name: 'on' },
					{ from: 'drawing', name: 'in' }
				],
				{ rows: 'each' }
			),
			LAMPS,
			facts
		);
		// 10 mm at 1:200 are 2 m.
		assert.equal(texts(rows)[1], 'Lamp |  | 2.00 | 4.00 | Lamps | Plan');
		assert.equal(texts(rows)[4], 'Spike light |  | 6.00 | 4.00 | Lamps | Plan');
		assert.equal(rows.rows[1]!.cells[1]!.symbol, 'lamp');
		assert.equal(rows.rows[4]!.cells[1]!.symbol, undefined, 'a kind without a symbol has none');
	});
	it('sort by several columns as people do: numbers in names by amount', () => {
		const rows = makeRows(
			definition([attribute('circuit'), attribute('type')], {
				sort: [
					{ by: 'circuit', order: 'falling' },
					{ by: 'type', order: 'rising' }
				]
			}),
			LAMPS,
			facts
		);
		assert.deepEqual(texts(rows).slice(1), ['C10 | bollard', 'C2 | bollard', 'C2 | post']);
	});
	it('group under headings with subtotals', () => {
		const rows = makeRows(
			definition(
				[attribute('circuit', { hidden: true }), attribute('type'), { from: 'sum', attribute: 'watt', name: 'Load' }],
				{
					groupBy: 'circuit',
					subtotals: true,
					total: true,
					title: 'Lamps'
				}
			),
			LAMPS,
			facts
		);
		assert.deepEqual(texts(rows), [
			'Lamps | ',
			'type | Load',
			'circuit C2 | ',
			'post | 36 W',
			'bollard | 9.5 W',
			'Subtotal | 45.5 W',
			'circuit C10 | ',
			'bollard | 9 W',
			'Subtotal | 9 W',
			'Total | 54.5 W'
		]);
		assert.deepEqual(
			rows.rows.map(({ role }) => role),
			['title', 'header:1', 'group:1', 'body', 'body', 'subtotal:1', 'group:1', 'body', 'subtotal:1', 'total']
		);
	});
	it('leave out what a condition does not meet, over several columns', () => {
		const rows = makeRows(
			definition([attribute('type'), attribute('circuit')], {
				where: {
					all: [
						{ column: 'type', is: '=', value: 'bollard' },
						{ column: 'circuit', is: 'startsWith', value: 'C1' }
					]
				}
			}),
			LAMPS,
			facts
		);
		assert.deepEqual(texts(rows).slice(1), ['bollard | C10']);
	});
	it('work out columns exactly, × before +, one on top of another', () => {
		const columns: ScheduleColumn[] = [
			attribute('type'),
			{ from: 'count', name: 'No.' },
			{ from: 'computed', name: 'Price', formula: [{ number: '0.1' }, '+', { number: '0.2' }] },
			{ from: 'computed', name: 'Cost', formula: [{ number: '1' }, '+', { column: 'No.' }, '×', { column: 'Price' }] }
		];
		assert.deepEqual(texts(makeRows(definition(columns), LAMPS, facts)).slice(1), [
			'post | 2 | 0.3 | 1.6',
			'bollard | 2 | 0.3 | 1.6'
		]);
	});
	it('say why an answer is missing: division by nothing, text, circles', () => {
		const one = (formula: Formula) =>
			makeRows(definition([attribute('type'), { from: 'computed', name: 'X', formula }]), LAMPS, facts);
		assert.match(one([{ number: '1' }, '÷', { number: '0' }]).problems[0]!, /divides by nothing/);
		assert.match(one([{ column: 'type' }]).problems[0]!, /“type” has no number/);
		assert.match(one([{ column: 'X' }, '+', { number: '1' }]).problems[0]!, /rests on itself/);
		assert.equal(texts(one([{ column: 'type' }]))[1], 'post | ');
		const mixed = makeRows(
			definition([
				{ from: 'kind', name: 'k' },
				{ from: 'sum', attribute: 'type', name: 'Sum' }
			]),
			LAMPS,
			facts
		);
		assert.match(mixed.problems[0]!, /“Sum” cannot be added up/);
	});
	it('refuse definitions that name what is not there, or one thing twice', () => {
		const refused = (columns: ScheduleColumn[], more: Partial<ScheduleDefinition>, words: RegExp) =>
			assert.throws(
				() => makeRows(definition(columns, more), LAMPS, facts),
				(error: unknown) => error instanceof InputError && words.test(error.message)
			);
		refused([attribute('a'), attribute('a')], {}, /Two columns are called “a”/);
		refused([attribute('a')], { sort: [{ by: 'b', order: 'rising' }] }, /no column “b”/);
		refused([attribute('a')], { groupBy: 'c' }, /no column “c”/);
		refused([attribute('a', { hidden: true })], {}, /Every column is hidden/);
		refused([{ from: 'computed', name: 'X', formula: [{ column: 'gone' }] }], {}, /no column “gone”/);
		const many = Array.from({ length: MOST_ROWS + 1 }, (_, i) => object(String(i), {}));
		assert.throws(() => makeRows(definition([attribute('a')], { rows: 'each' }), many, facts), /5,001 rows/);
	});
	it('stand upwards under their title, and the other way round again', () => {
		const rows = makeRows(
			definition([attribute('type'), { from: 'count', name: 'No.' }], { title: 'Lamps', total: true }),
			LAMPS,
			facts
		);
		const up = standing(rows.rows, 'up');
		assert.deepEqual(
			up.map(({ role }) => role),
			['title', 'total', 'body', 'body', 'header:1']
		);
		assert.deepEqual(standing(up, 'up'), rows.rows);
		const { table } = tableOf(rows, 'up');
		assert.equal(gridFault(table), undefined);
		assert.equal(table.columnInfo[1]!.kind, 'count');
		assert.equal(table.cells[0]!.cols, 2, 'the title reaches across');
	});
	it('hold every object once, however they are sorted and grouped', () => {
		const word = fc.constantFrom('p', 'q', 'r', '', '12', '3 m');
		const objects = fc
			.array(fc.record({ a: word, b: word }), { maxLength: 40 })
			.map((list) => list.map((attributes, i) => object(String(i), attributes)));
		fc.assert(
			fc.property(objects, fc.boolean(), fc.boolean(), fc.boolean(), (list, each, isGrouped, falling) => {
				const rows = makeRows(
					definition([attribute('a'), attribute('b'), { from: 'count', name: 'No.' }], {
						rows: each ? 'each' : 'merged',
						sort: [{ by: 'b', order: falling ? 'falling' : 'rising' }],
						...(isGrouped && { groupBy: 'a', subtotals: true }),
						total: true
					}),
					list,
					facts
				);
				const held = rows.rows.flatMap((row) => row.objects);
				assert.deepEqual([...held].sort(), list.map(({ key }) => key).sort());
				assert.equal(new Set(rows.rows.map(({ key }) => key)).size, rows.rows.length, 'keys tell rows apart');
				if (list.length) assert.equal(rows.rows.at(-1)!.cells[2]!.text, String(list.length));
			})
		);
	});
});

describe('the identity of objects', () => {
	const at = (x: number, y: number, attributes: Record<string, string> = {}, kind = 'k') =>
		objectKey(undefined, 1, { kind, attributes, x, y });
	it('is their id, told apart where two have one', () => {
		const facts = { kind: 'k', attributes: {}, x: 0, y: 0 };
		assert.equal(objectKey('p1', 1, facts), '#p1');
		assert.equal(objectKey('p1', 2, facts), '#p1~2');
	});
	it('is else kind, attributes and place: moved, and changed, they are found again', () => {
		const before = [at(0, 0, { a: '1' }), at(50, 0, { a: '1' }), at(9, 9, { a: '2' })];
		const now = [at(51, 1, { a: '1' }), at(0, 0, { a: '1' }), at(9, 9, { a: '3' }), at(70, 70, { a: '9' })];
		const matched = matchObjects(before, now);
		assert.equal(matched.get(now[1]!), before[0]);
		assert.equal(matched.get(now[0]!), before[1], 'the nearest of the same kind and attributes');
		assert.equal(matched.get(now[2]!), before[2], 'the same kind at the same place');
		assert.equal(matched.get(now[3]!), undefined);
	});
	it('never gives one object of before to two of now', () => {
		const spot = fc.record({
			x: fc.integer({ min: 0, max: 5 }),
			y: fc.integer({ min: 0, max: 5 }),
			a: fc.constantFrom('1', '2')
		});
		const keys = fc.array(spot).map((list) => [...new Set(list.map(({ x, y, a }) => at(x, y, { a })))]);
		fc.assert(
			fc.property(keys, keys, (before, now) => {
				const matched = [...matchObjects(before, now).values()];
				assert.equal(new Set(matched).size, matched.length);
				for (const key of now) if (before.includes(key)) assert.equal(matchObjects(before, now).get(key), key);
			})
		);
	});
});

describe('figures in schedules', () => {
	const lengths = ['1.250', '2.375', '3.125'].map((length, i) => object(`p${i}`, { type: 'pipe', length }));
	it('take the point for the decimal mark, as data has it', () => {
		const rows = makeRows(
			definition([attribute('type'), { from: 'sum', attribute: 'length', name: 'Length' }], { total: true }),
			lengths,
			facts
		);
		assert.deepEqual(texts(rows), ['type | Length', 'pipe | 6.750', 'Total | 6.750']);
	});
	it('carry measures through columns that are worked out, and keep the minus', () => {
		const priced = [
			object('a', { price: '€ 10.10', share: '10 %', level: '-3' }),
			object('b', { price: '€ 5.00', share: '20 %', level: '-5' })
		];
		const formula: Formula = [{ column: 'price' }, '×', { column: 'share' }];
		const rows = makeRows(
			definition(
				[
					attribute('price'),
					attribute('share'),
					{ from: 'computed', formula, name: 'Part', total: true },
					attribute('level', { total: true })
				],
				{ total: true }
			),
			priced,
			facts
		);
		assert.deepEqual(texts(rows).slice(1), [
			'€ 10.10 | 10 % | € 1.01 | -3',
			'€ 5.00 | 20 % | € 1.00 | -5',
			'Total |  | € 2.01 | -8'
		]);
	});
	it('sum what was worked out in full, not as it is shown', () => {
		const thirds = [1, 2, 4].map((n) => object(`t${n}`, { size: `${n}` }));
		const formula: Formula = [{ column: 'size' }, '÷', { number: '3' }];
		const rows = makeRows(
			definition([attribute('size'), { from: 'computed', formula, name: 'Third', total: true }], { total: true }),
			thirds,
			facts
		);
		assert.equal(rows.rows.at(-1)!.cells[1]!.text, '2.3333');
	});
	it('filter rows by a count or what is worked out, and objects by what they say', () => {
		const columns: ScheduleColumn[] = [attribute('type'), { from: 'count', name: 'No.' }];
		const many = makeRows(definition(columns, { where: { column: 'No.', is: '>=', value: 2 } }), LAMPS, facts);
		assert.deepEqual(texts(many), ['type | No.', 'post | 2', 'bollard | 2']);
		const none = makeRows(definition(columns, { where: { column: 'No.', is: '>', value: 2 } }), LAMPS, facts);
		assert.deepEqual(texts(none), ['type | No.']);
		const posts = makeRows(definition(columns, { where: { column: 'type', is: '=', value: 'post' } }), LAMPS, facts);
		assert.deepEqual(texts(posts), ['type | No.', 'post | 2']);
	});
	it('that do not go together are said, and not added', () => {
		const mixed = [object('a', { size: '3 m' }), object('b', { size: '€ 4.00' })];
		const rows = makeRows(
			definition([attribute('size', { total: true })], { total: true, rows: 'each' }),
			mixed,
			facts
		);
		assert.deepEqual(rows.problems, ['“size” cannot be added up: not all of its values are figures that go together.']);
	});
});
