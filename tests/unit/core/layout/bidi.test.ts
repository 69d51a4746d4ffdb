import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { drawnFromLeft, fromTheLeft, ordered } from '../../../../src/lib/core/layout/bidi.ts';
import { baseOf } from '../../../../src/lib/core/layout/direction.ts';
import { boxOf, layTable, tableWidth, type TableInput } from '../../../../src/lib/core/layout/table.ts';
import { fillLines, measureParagraph } from '../../../../src/lib/core/layout/paragraph.ts';
import { piecesOf } from '../../../../src/lib/core/layout/text.ts';
import type { Look } from '../../../../src/lib/core/cascade/look.ts';
import { createGrid } from '../../../../src/lib/core/table/grid.ts';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import { emu } from '../../../../src/lib/core/units.ts';
import { bareAppearance, plainContent } from '../../../../src/lib/formats/bare.ts';
import { shippedFaces } from '../../../../src/lib/formats/pdf/fonts.ts';

const LOOK: Look = { family: 'Source Sans 3', size: emu(127_000), weight: 400 };
const lineOf = (text: string) => fillLines(measureParagraph(piecesOf([{ text }], LOOK, shippedFaces)), 1e9)[0]!;
const seen = (text: string) => {
	const { pieces } = ordered(lineOf(text), baseOf(text, 'ltr'));
	return [...pieces].sort((a, b) => a.x - b.x).map((piece) => piece.text);
};

describe('letters of both directions in a line', () => {
	test('stand as UAX 9 puts them', () => {
		assert.deepEqual(seen('abc שלום def'), ['abc ', 'שלום', ' def']);
		assert.deepEqual(seen('ורד לבן 2031'), ['2031', ' ', 'לבן', ' ', 'ורד']);
		assert.deepEqual(seen('Beds (אגם) 12'), ['Beds (', 'אגם', ') ', '12']);
		assert.equal(drawnFromLeft('('), ')');
		assert.equal(baseOf('12.5', 'rtl'), 'rtl');
		assert.equal(baseOf('12 Beds', 'rtl'), 'ltr');
		assert.equal(baseOf('12 ורד', 'ltr'), 'rtl');
	});
	test('never bring the layout down, whatever letters stand together', () => {
		const face = shippedFaces({ family: 'Source Sans 3', weight: 400, italic: false });
		for (let code = 0x590; code <= 0x8ff; code++) assert.ok(face.advance(String.fromCodePoint(code)) >= 0);
		const letter = fc.integer({ min: 0x590, max: 0x8ff }).map((code) => String.fromCodePoint(code));
		fc.assert(
			fc.property(fc.array(letter, { maxLength: 8 }), (letters) => {
				const text = letters.join('');
				assert.ok(face.advance(text) >= 0);
				assert.equal(
					face
						.runs(text)
						.map((run) => run.text)
						.join(''),
					text
				);
			})
		);
	});
	test('are all there once, in the order in which they are read, whatever the text', () => {
		const mixed = fc
			.array(fc.constantFrom('bed ', 'ורד ', '12.5 ', '(', ') ', 'خزامى ', '– ', 'a, '), { maxLength: 12 })
			.map((parts) => parts.join(''));
		fc.assert(
			fc.property(mixed, fc.constantFrom('ltr' as const, 'rtl' as const), (text, base) => {
				const line = lineOf(text);
				const { pieces } = ordered(line, base);
				assert.equal(pieces.map((piece) => piece.text).join(''), line.pieces.map((piece) => piece.text).join(''));
				// Nothing lies over anything else.
				const placed = [...pieces].sort((a, b) => a.x - b.x);
				placed.forEach((piece, i) => {
					const next = placed[i + 1];
					if (next) assert.ok(piece.x + piece.width <= next.x + 2, `${piece.text} over ${next.text}`);
				});
				assert.equal(
					fromTheLeft(text)
						.map((one) => one.text)
						.join('').length,
					text.length
				);
			})
		);
	});
});

test('a table that runs to the left is the mirror of one that runs to the right', () => {
	const words = fc.array(fc.array(fc.constantFrom('a', 'bed', 'wide words', '12.5'), { minLength: 3, maxLength: 3 }), {
		minLength: 1,
		maxLength: 4
	});
	fc.assert(
		fc.property(words, fc.constantFrom('start', 'middle', 'end', undefined), (rows, h) => {
			const { table } = recognisedTable(createGrid(rows));
			const appearance = {
				...bareAppearance(table),
				looks: [{ ...LOOK, ...(h && { h }), marginStart: emu(90_000), marginEnd: emu(20_000) }]
			};
			const input: TableInput = { table, appearance, content: plainContent(table.cells), widths: [] };
			const left = layTable(input, emu(9_000_000), shippedFaces);
			const right = layTable({ ...input, table: { ...table, dir: 'rtl' } }, emu(9_000_000), shippedFaces);
			const all = tableWidth(left);
			table.cells.forEach((cell, i) => {
				const [a, b] = [boxOf(left, cell), boxOf(right, cell)];
				assert.ok(Math.abs(a.x + b.x + b.width - all) < 2);
				left.cells[i]!.lines.forEach(({ x, line }, k) => {
					const other = right.cells[i]!.lines[k]!;
					assert.ok(Math.abs(all - x - line.width - other.x) < 2, `${x} and ${other.x} of ${all}`);
				});
			});
		}),
		{ numRuns: 40 }
	);
});
