import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { seedList } from '../../../demo/documents/seed-list.ts';
import { createGrid } from '../../../src/lib/core/table/grid.ts';
import { plainContent, plainContentWhenSeen } from '../../../src/lib/formats/bare.ts';
import { bareTable } from '../../../src/lib/formats/found.ts';
import { readCsv } from '../../../src/lib/formats/csv/read.ts';
import { packTable, unpackTable } from '../../../src/lib/workbench/packed.ts';

/** A table as it comes out where it was sent to, with its content looked at. */
function arrived(entry: ReturnType<typeof packTable>) {
	const { content, ...table } = unpackTable(
		structuredClone({ ...entry, ...('content' in entry && { content: [...entry.content] }) })
	);
	return { ...table, content: [...content] };
}

test('a packed table unpacks as it was, and is a fraction of it', () => {
	const [entry] = readCsv(seedList()).tables;
	const packed = packTable(entry!);
	assert.equal(unpackTable(packed), entry, 'where it was packed, nothing is unpacked');
	assert.deepEqual(arrived(packed), { ...entry!, content: [...entry!.content] });
	assert.ok(JSON.stringify(packed).length * 4 < JSON.stringify(entry).length);
});

test('whatever its texts are, also where they hold the marks that part them', () => {
	const text = fc.oneof(fc.string({ maxLength: 6 }), fc.constantFrom('\u009f', 'a\u009eb', '', '1.5', 'a\nb'));
	fc.assert(
		fc.property(
			fc.integer({ min: 1, max: 4 }),
			fc.integer({ min: 1, max: 6 }),
			fc.infiniteStream(text),
			(columns, rows, texts) => {
				const grid = createGrid(
					Array.from({ length: rows }, () => Array.from({ length: columns }, () => texts.next().value))
				);
				const entry = bareTable(grid, 0, { where: 'body', part: 'rows' });
				assert.deepEqual(arrived(packTable(entry)), { ...entry, content: [...entry.content] });
			}
		)
	);
});

test('what is only made when it is looked at is a list like any other', () => {
	const cells = createGrid([
		['a', 'b\nc'],
		['', 'a']
	]).cells;
	const [list, seen] = [plainContent(cells), plainContentWhenSeen(cells)];
	assert.equal(seen.length, 4);
	assert.deepEqual(
		seen.map((content, i) => [i, content]),
		list.map((content, i) => [i, content])
	);
	assert.equal(seen[0], seen[3], 'cells that say the same share it');
	assert.equal(seen[4], undefined);
	assert.deepEqual(seen.slice(1, 3), list.slice(1, 3));
	assert.ok(Array.isArray(seen));
	assert.deepEqual(
		[0, 3, 4].map((i) => Object.hasOwn(seen, i)),
		[true, true, false]
	);
	assert.equal(JSON.stringify(seen), JSON.stringify(list));
});
