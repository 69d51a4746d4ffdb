import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Hints } from '../../../../src/lib/core/recognise/facts.ts';
import { findFigures } from '../../../../src/lib/core/findings/figures.ts';
import { recognise } from '../../../../src/lib/core/recognise/recognise.ts';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import { createGrid, type Span } from '../../../../src/lib/core/table/grid.ts';
import { anyGrid } from '../any.ts';

/** Rows as lines of cells parted by |; a role is written before each. */
function check(
	name: string,
	text: string,
	options: { kinds?: string; spans?: Span[]; hints?: Hints; first?: number; last?: number; findings?: string[] } = {}
): void {
	it(name, () => {
		const lines = text
			.trim()
			.split('\n')
			.map((row) => row.trim().split('»'));
		const expected = lines.map(([role]) => role!.trim());
		const cells = lines.map(([, rest]) => rest!.split('|').map((cell) => cell.trim()));
		const grid = createGrid(cells, options.spans);
		const result = recognise(grid, options.hints);
		assert.deepEqual(
			result.rows.map(({ is }) => is),
			expected
		);
		if (options.kinds) assert.equal(result.columns.map(({ is }) => is).join(' '), options.kinds);
		if (options.first !== undefined) assert.equal(result.firstColumns.is, options.first);
		if (options.last !== undefined) assert.equal(result.lastColumns.is, options.last);
		if (options.findings)
			assert.deepEqual(
				findFigures(recognisedTable(grid, options.hints).table).map(({ words }) => words),
				options.findings
			);
		for (const guess of [...result.rows, ...result.columns]) {
			assert.ok(guess.confidence > 0 && guess.confidence <= 1);
			assert.ok(guess.reasons.length > 0 && guess.reasons.every(Boolean));
		}
	});
}

describe('recognition', () => {
	check(
		'a total by arithmetic alone, without a word',
		`header:1 » Bed | Ferns | Cost
		body » North | 12 | 40.00
		body » South | 18 | 61.50
		body » Stream | 9 | 20.25
		total » Whole garden | 39 | 121.75`,
		{ kinds: 'text count money', first: 1, findings: [] }
	);
	check(
		'subtotals in blocks, and a total of the subtotals',
		`header:1 » Place | Visitors
		group:1 » Under glass |
		body » Lily court | 100
		body » Fern grotto | 50
		subtotal:1 » Subtotal | 150
		group:1 » Outside |
		body » Alpine bench | 30
		body » Path | 20
		subtotal:1 » Subtotal | 50
		total » Total | 200`,
		{ kinds: 'text count' }
	);
	check(
		'a total that does not add up is still one, and a finding',
		`header:1 » Quarter | Cost, €
		body » Spring | 7 204.10
		body » Summer | 3 480.55
		total » Total | 10 684.95`,
		{ kinds: 'text money', findings: ['total is off by € 0.30'] }
	);
	check(
		'a rate in the total row is no wrong sum',
		`header:1 » Team | People | Hours | Hours a head
		body » Ferns | 12 | 486 | 40.5
		body » Seeds | 8 | 352 | 44.0
		total » All teams | 20 | 838 | 41.9`,
		{ findings: [] }
	);
	check(
		'header tiers by spans, the finer one named',
		`header:1 » Place | Visitors | | Takings
		header:2 » | 2030 | 2031 | €
		body » Lily court | 100 | 110 | 61.00
		body » Fern grotto | 50 | 40 | 24.50`,
		{
			spans: [
				{ r: 0, c: 1, rows: 1, cols: 2 },
				{ r: 0, c: 0, rows: 2, cols: 1 }
			],
			kinds: 'text count count money'
		}
	);
	check(
		'title and note across the whole width',
		`title » Events of the season | |
		header:1 » Date | Event | Guests
		body » 2031-04-12 | Opening | 120
		body » 2031-06-21 | Midsummer | 300
		note » Note: counted at the gate. | |`,
		{
			spans: [
				{ r: 0, c: 0, rows: 1, cols: 3 },
				{ r: 4, c: 0, rows: 1, cols: 3 }
			],
			kinds: 'date text count'
		}
	);
	check(
		'no header where the first row is like the others',
		`body » North | 12
		body » South | 18
		body » Stream | 9`,
		{ kinds: 'text count' }
	);
	check(
		'years as column names are names',
		`header:1 » Month | 2030 | 2031
		body » April | 11 204 | 11 870
		body » May | 14 318 | 15 002`
	);
	check(
		'German words and number formats',
		`header:1 » Posten | Betrag
		body » Saatgut | 1.234,50
		body » Glas | 2.000,00
		subtotal:1 » Zwischensumme | 3.234,50
		body » Druck | 100,25
		total » Gesamtsumme | 3.334,75`,
		{ kinds: 'text money' }
	);
	check(
		'French words',
		`header:1 » Poste | Montant
		body » Semences | 12,50
		body » Verre | 7,50
		total » Total général | 20,00`,
		{ kinds: 'text money' }
	);
	check(
		'negative amounts in parentheses',
		`header:1 » Heading | Variance, €
		body » Heating | (3 204.40)
		body » Seed | 1 581.85
		total » Total | (1 622.55)`,
		{ kinds: 'text money', findings: [] }
	);
	check(
		'codes with leading zeros stay codes, an empty column stays text',
		`header:1 » Accession | Plant | Checked by
		body » 00417 | Dryopteris | 
		body » 00425 | Asplenium | 
		body » 00431 | Osmunda | `,
		{ kinds: 'code text text', hints: { header: [true, false, false, false] } }
	);
	check(
		'quantities by unit in the cells or in the name',
		`header:1 » Plant | Pot | Spacing (m)
		body » Blechnum | 3 L | 0.30
		body » Osmunda | 5 L | 0.95`,
		{ kinds: 'text quantity quantity' }
	);
	check(
		'a last column that sums its row',
		`header:1 » Bed | April | May | Both
		body » North | 3 | 4 | 7
		body » South | 5 | 6 | 11
		body » Stream | 1 | 8 | 9`,
		{ last: 1 }
	);
	check(
		'small numbers that happen to add up are no total',
		`header:1 » Step | Number
		body » one | 1
		body » two | 2
		body » three | 3
		body » four | 9`
	);
	check(
		'a header of words over words, by its formatting',
		`header:1 » Thing | Place
		body » First-aid box | Potting shed
		body » Spare keys | Gatehouse`,
		{ hints: { bold: (r) => r === 0 }, kinds: 'text text' }
	);

	it('never throws, on any grid of any text', () => {
		fc.assert(
			fc.property(
				anyGrid,
				fc.array(fc.oneof(fc.string(), fc.constantFrom('Total', '12.00', '(3)', '€ 5', '2031', '', 'Note: x')), {
					minLength: 48,
					maxLength: 48
				}),
				({ texts, spans }, words) => {
					const grid = createGrid(
						texts.map((row, r) => row.map((_, c) => words[(r * 6 + c) % 48]!)),
						spans
					);
					const result = recognise(grid);
					assert.equal(result.rows.length, grid.rows);
					assert.equal(result.columns.length, grid.columns);
				}
			)
		);
		assert.doesNotThrow(() => recognise(createGrid([])));
		assert.doesNotThrow(() => recognise(createGrid([[]])));
		assert.doesNotThrow(() => recognise(createGrid([['']])));
	});
});
