import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { ScheduleDefinition } from '../../../../src/lib/core/schedule/definition.ts';
import {
	accept,
	differences,
	type ChangeAnswer,
	type RowChange
} from '../../../../src/lib/core/schedule/difference.ts';
import {
	nextRevision,
	noRevisions,
	pointFor,
	topLeft,
	withRevision,
	CORNERS
} from '../../../../src/lib/core/schedule/placed.ts';
import type { DrawingObject } from '../../../../src/lib/core/schedule/objects.ts';
import { makeRows, type ScheduleRows } from '../../../../src/lib/core/schedule/rows.ts';
import { answered } from '../../../../src/lib/workbench/schedules.ts';

const facts = { scale: 50, name: '', names: new Map<string, string>(), symbols: new Set<string>() };
const plant = (id: string, species: string, pot = '1 L'): DrawingObject => ({
	key: `#${id}`,
	kind: 'plant',
	layer: '',
	drawing: '',
	x: 0,
	y: 0,
	attributes: { species, pot }
});
const SCHEDULE: ScheduleDefinition = {
	format: 'heptarch-schedule',
	version: 1,
	title: 'Plants',
	rows: 'merged',
	columns: [
		{ from: 'attribute', attribute: 'species', name: 'Plant' },
		{ from: 'attribute', attribute: 'pot', name: 'Pot' },
		{ from: 'count', name: 'No.' },
		{ from: 'typed', name: 'Remark' }
	],
	total: true
};
const make = (objects: readonly DrawingObject[]) => makeRows(SCHEDULE, objects, facts);
const typed = (rows: ScheduleRows, plant: string, column: number, text: string, over?: string): ScheduleRows => ({
	...rows,
	rows: rows.rows.map((row) =>
		row.cells[0]!.text === plant
			? {
					...row,
					cells: row.cells.map((cell, c) => (c === column ? { text, ...(over !== undefined && { over }) } : cell))
				}
			: row
	)
});
const words = (changes: readonly RowChange[]) =>
	changes.map((change) =>
		change.kind === 'changed'
			? `${change.column}: ${change.was} → ${change.is}${change.conflict ? '!' : ''}`
			: `${change.kind} ${change.words}`
	);
const texts = ({ rows }: ScheduleRows) => rows.map(({ cells }) => cells.map(({ text }) => text).join('|'));

const BEFORE = [plant('1', 'Osmunda'), plant('2', 'Osmunda'), plant('3', 'Blechnum'), plant('4', 'Adiantum')];

describe('reading a drawing again', () => {
	it('lists rows added, gone and changed, cell by cell', () => {
		const now = make([
			plant('1', 'Osmunda'),
			plant('2', 'Osmunda'),
			plant('5', 'Osmunda'),
			plant('3', 'Blechnum'),
			plant('6', 'Athyrium')
		]);
		assert.deepEqual(words(differences(make(BEFORE), now)), [
			'No.: 2 → 3',
			'added Athyrium · 1 L',
			'No.: 4 → 5',
			'gone Adiantum · 1 L'
		]);
		assert.deepEqual(differences(now, now), []);
	});
	it('knows a row by its objects where all that it says changed', () => {
		const now = make([plant('1', 'Osmunda', '5 L'), plant('2', 'Osmunda', '5 L'), ...BEFORE.slice(2)]);
		assert.deepEqual(words(differences(make(BEFORE), now)), ['Pot: 1 L → 5 L']);
	});
	it('what is typed by hand stays with its row, whatever else changes', () => {
		const before = typed(make(BEFORE), 'Osmunda', 3, 'by the pond');
		const now = make([plant('1', 'Osmunda', '5 L'), plant('2', 'Osmunda', '5 L'), plant('0', 'Aspidium')]);
		const { rows } = accept(before, now, 'all');
		assert.ok(texts(rows).includes('Osmunda|5 L|2|by the pond'), texts(rows).join('\n'));
		assert.deepEqual(differences(rows, now), []);
	});
	it('a row that is gone says what was typed in it', () => {
		const before = typed(make(BEFORE), 'Adiantum', 3, 'ordered');
		const [gone] = differences(before, make(BEFORE.slice(0, 3))).filter(({ kind }) => kind === 'gone');
		assert.deepEqual(gone!.kind === 'gone' && gone!.typed, ['ordered']);
	});
	it('what is written over the drawing stays until the drawing says something else: then it is a conflict', () => {
		const before = typed(make(BEFORE), 'Osmunda', 1, '2 L', '1 L');
		assert.deepEqual(differences(before, make(BEFORE)), []);
		const now = make([plant('1', 'Osmunda', '5 L'), plant('2', 'Osmunda', '5 L'), ...BEFORE.slice(2)]);
		const changes = differences(before, now);
		assert.deepEqual(words(changes), ['Pot: 2 L → 5 L!']);
		const kept = accept(before, now, new Map([[changes[0]!.id, 'keep' as const]])).rows;
		assert.ok(texts(kept).includes('Osmunda|2 L|2|'));
		assert.deepEqual(differences(kept, now), [], 'kept is kept: nobody asks again');
		const taken = accept(before, now, 'all').rows;
		assert.ok(texts(taken).includes('Osmunda|5 L|2|'));
	});
	it('some changes can be accepted and others left', () => {
		const before = make(BEFORE);
		const now = make([...BEFORE.slice(0, 3), plant('7', 'Athyrium')]);
		const changes = differences(before, now);
		const answers = new Map(
			changes.filter(({ kind }) => kind === 'added').map(({ id }): [string, ChangeAnswer] => [id, 'take'])
		);
		const { rows } = accept(before, now, answers);
		assert.deepEqual(
			texts(rows).slice(2, -1),
			['Osmunda|1 L|2|', 'Blechnum|1 L|1|', 'Adiantum|1 L|1|', 'Athyrium|1 L|1|'],
			'the row that is not let go stays where it was'
		);
		assert.deepEqual(words(differences(rows, now)), ['gone Adiantum · 1 L']);
	});
	it('touches stay with their rows and columns', () => {
		const rows = typed(make(BEFORE), 'Blechnum', 3, 'x');
		const placed = {
			id: 'table-1',
			source: { from: 'objects' as const, definition: SCHEDULE },
			rows,
			at: { x: 0, y: 0 },
			corner: 'top-start' as const,
			reads: 'down' as const
		};
		const at = rows.rows.findIndex(({ cells }) => cells[0]!.text === 'Blechnum');
		const own = { touches: [{ r: at, c: 2, set: { text: { italic: true } } }] };
		const now = make([plant('0', 'Aspidium'), ...BEFORE]);
		const next = answered(placed, own, now, 'all');
		const moved = next.placed.rows.rows.findIndex(({ cells }) => cells[0]!.text === 'Blechnum');
		assert.deepEqual(
			next.own.touches!.map(({ r, c }) => [r, c]),
			[[moved, 2]]
		);
		assert.equal(moved, at + 1);
	});
	it('accepting all leaves nothing to accept, accepting none changes nothing', () => {
		const species = fc.constantFrom('A', 'B', 'C', 'D');
		const plants = fc
			.uniqueArray(fc.record({ id: fc.integer({ min: 0, max: 30 }), species, pot: fc.constantFrom('1 L', '2 L') }), {
				selector: ({ id }) => id,
				maxLength: 25
			})
			.map((list) => list.map(({ id, species: name, pot }) => plant(String(id), name, pot)));
		fc.assert(
			fc.property(plants, plants, (was, is) => {
				const [before, now] = [make(was), make(is)];
				assert.deepEqual(differences(accept(before, now, 'all').rows, now), []);
				const left = accept(before, now, new Map()).rows;
				assert.deepEqual(texts(left).sort(), texts(before).sort(), 'what is not accepted stays as the table has it');
				const one = differences(before, now)[0];
				if (one) {
					const after = differences(accept(before, now, new Map([[one.id, 'take' as const]])).rows, now);
					assert.ok(after.length < differences(before, now).length, 'each accepted change is one less');
				}
			}),
			{ numRuns: 300 }
		);
	});
});

describe('revision tables', () => {
	it('count on from what they have', () => {
		const add = (rows: ScheduleRows, number: string) =>
			withRevision(rows, { number, date: '2031-01-01', what: 'x', who: 'LT' });
		const empty = noRevisions('Revisions');
		assert.equal(nextRevision(empty), 'A');
		assert.equal(nextRevision(add(empty, 'C')), 'D');
		assert.equal(nextRevision(add(empty, 'Z')), 'AA');
		assert.equal(nextRevision(add(empty, '09')), '10');
		assert.equal(nextRevision(add(empty, 'P-B')), 'P-C');
	});
	it('a table’s point and its top left corner lead to each other', () => {
		for (const corner of CORNERS) {
			const size = { width: 40, height: 25 };
			const at = pointFor(corner, { x: 100, y: 60 }, size);
			assert.deepEqual(topLeft({ at, corner }, size), { x: 100, y: 60 });
		}
	});
});
