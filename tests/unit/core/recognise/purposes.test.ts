import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Hints } from '../../../../src/lib/core/recognise/facts.ts';
import { isLeftOut, PURPOSES, type Purpose } from '../../../../src/lib/core/recognise/purpose/kinds.ts';
import { recognise, recognisedAs } from '../../../../src/lib/core/recognise/recognise.ts';
import { isHeader } from '../../../../src/lib/core/roles/index.ts';
import { createGrid, type Grid } from '../../../../src/lib/core/table/grid.ts';
import { anyGrid } from '../any.ts';
import { gridOf } from './labelled.ts';

const THINGS = { '{picture}': 'pictures', '{box}': 'boxes', '{field}': 'fields', '{table}': 'inner' } as const;

interface Labelled {
	readonly name: string;
	readonly purpose: Purpose;
	readonly grid: Grid;
	readonly hints: Hints;
}

const tables: Labelled[] = readFileSync(new URL('./purposes.txt', import.meta.url), 'utf8')
	.split(/^== /m)
	.slice(1)
	.map((block) => {
		const [head, ...lines] = block.replace(/\n+$/, '').split('\n');
		const [, purpose, name] = /^(\w+), (.*)$/.exec(head!)!;
		const marked = gridOf(lines.map((line) => line.split('|').map((cell) => cell.trim().replaceAll('\\n', '\n'))));
		const things = marked.cells.map(({ text }) =>
			Object.fromEntries(Object.entries(THINGS).flatMap(([mark, kind]) => (text.includes(mark) ? [[kind, 1]] : [])))
		);
		const cells = marked.cells.map((cell) => ({ ...cell, text: cell.text.replace(/\{\w+\} ?/g, '') }));
		return {
			name: name!,
			purpose: purpose as Purpose,
			grid: { ...marked, cells },
			hints: { things: (cell) => things[cell]! }
		};
	});

describe('the purpose of a table', () => {
	for (const { name, purpose, grid, hints } of tables)
		it(`is ${purpose}: ${name}`, () => {
			const found = recognise(grid, hints);
			assert.equal(found.purpose.is, purpose, found.purpose.reasons.join('; '));
			assert.ok(found.purpose.reasons.length > 0);
		});

	it('never dresses a form: it has no header, no groups, no sums and no columns that name rows', () => {
		for (const { name, purpose, grid, hints } of tables)
			if (isLeftOut(purpose)) {
				const { rows, firstColumns, lastColumns } = recognise(grid, hints);
				assert.ok(
					rows.every(({ is }) => is === 'body' || is === 'title' || is === 'note'),
					name
				);
				assert.deepEqual([firstColumns.is, lastColumns.is], [0, 0], name);
			}
	});
	it('of a matrix keeps sums out that are only ones by chance', () => {
		const { grid } = tables.find(({ name }) => name.startsWith('ranks'))!;
		assert.deepEqual(
			recognise(grid).rows.map(({ is }) => is),
			['header:1', 'body', 'body', 'body']
		);
	});
	it('of a calendar names its columns by the weekdays', () => {
		const { grid } = tables.find(({ name }) => name === 'a month')!;
		const { rows, columns } = recognise(grid);
		assert.deepEqual(rows.map(({ is }) => is).slice(0, 3), ['title', 'header:1', 'body']);
		assert.deepEqual(columns.map(({ name }) => name).join(' '), 'Mon Tue Wed Thu Fri Sat Sun');
	});

	it('is answered for any grid, with every row and column, whatever somebody says it is', () => {
		fc.assert(
			fc.property(anyGrid, fc.constantFrom(...PURPOSES), ({ texts, spans }, purpose) => {
				const grid = createGrid(texts, spans);
				const found = recognise(grid);
				assert.ok(
					PURPOSES.includes(found.purpose.is) && found.purpose.confidence >= 0 && found.purpose.confidence <= 1
				);
				const said = recognisedAs(grid, found, purpose);
				for (const { rows, columns, firstColumns, lastColumns } of [found, said]) {
					assert.deepEqual([rows.length, columns.length], [grid.rows, grid.columns]);
					assert.ok(firstColumns.is <= grid.columns && lastColumns.is <= grid.columns);
				}
				if (isLeftOut(purpose)) assert.ok(!said.rows.some(({ is }) => isHeader(is)));
				assert.deepEqual(recognisedAs(grid, found, 'data').rows, (found.asData ?? found).rows);
				assert.deepEqual(recognisedAs(grid, found, found.purpose.is), found);
			})
		);
	});
});
