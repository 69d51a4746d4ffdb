import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { rowsOfText } from '../../../../src/lib/ui/table-bench/clipboard.ts';

test('tab-separated text is read as rows; quoted fields hold tabs, line ends and quotation marks', () => {
	assert.deepEqual(rowsOfText('a\tb\nc\td\n'), [
		['a', 'b'],
		['c', 'd']
	]);
	assert.deepEqual(rowsOfText('"two\nlines"\t"a ""word"""\nx\t'), [
		['two\nlines', 'a "word"'],
		['x', '']
	]);
	assert.deepEqual(rowsOfText('5" pot\t"open'), [['5" pot', '"open']], 'a mark inside a field is a letter');
});

test('what is written as tab-separated text is read again', () => {
	const field = fc.string({ unit: fc.constantFrom('a', 'é', '"', '\t', '\n', ' '), maxLength: 8 });
	const quoted = (text: string) => (/[\t\n"]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text);
	fc.assert(
		fc.property(fc.array(fc.array(field, { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 4 }), (rows) => {
			assert.deepEqual(rowsOfText(rows.map((row) => row.map(quoted).join('\t')).join('\n') + '\n'), rows);
		}),
		{ numRuns: 500 }
	);
});
