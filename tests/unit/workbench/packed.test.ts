import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { seedList } from '../../../demo/documents/seed-list.ts';
import { createGrid } from '../../../src/lib/core/table/grid.ts';
import { bareTable } from '../../../src/lib/formats/bare.ts';
import { readCsv } from '../../../src/lib/formats/csv/read.ts';
import { packTable, unpackTable } from '../../../src/lib/workbench/packed.ts';

test('a packed table unpacks as it was, and is a fraction of it', () => {
	const [entry] = readCsv(seedList()).tables;
	const packed = packTable(entry!);
	assert.deepEqual(unpackTable(packed), entry);
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
				assert.deepEqual(unpackTable(packTable(entry)), entry);
			}
		)
	);
});
