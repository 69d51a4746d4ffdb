import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { rowsMeeting } from '../../../../src/lib/core/cascade/rules.ts';
import type { Condition } from '../../../../src/lib/core/style/types.ts';
import { Shown, table } from '../../support.ts';

const BEDS = table(['header:1', 'body', 'body', 'body', 'body', 'body', 'total'], 5, {
	cells: [
		['Bed', 'Cost', 'Share', 'Seen', 'State'],
		['North bank', '€12.00', '40 %', '2031-04-12', 'open'],
		['Hollow', '(€3.50)', '10 %', '2031-05-03', 'open'],
		['Old wall', 'n/a', '', '', 'shut'],
		['Pond edge', '€20.00', '10 %', '2031-05-19', 'shut'],
		['North gate', '£12.00', '40 %', '2031-04-02', 'open'],
		['Total', '€28.50', '100 %', '', '']
	],
	columns: [
		{ kind: 'text', name: 'Bed' },
		{ kind: 'money', name: 'Cost' },
		{ kind: 'percent', name: 'Share' },
		{ kind: 'date', name: 'Seen' },
		{ kind: 'text', name: 'State' }
	]
});

/** The cells that a rule with this condition hits, as row and column: `11 21`. */
function hits(where: object, reach?: 'row' | 'column'): string {
	const rule = {
		name: 'r',
		where: where as Condition,
		...(reach && { extends: reach }),
		set: { fill: { ink: 'x' } }
	};
	const shown = new Shown(BEDS, {}, { rules: [rule] });
	return BEDS.cells
		.filter(({ r, c }) => shown.leaf(r, c, 'fill.ink'))
		.map(({ r, c }) => `${r}${c}`)
		.join(' ');
}
const cost = (is: string, value?: unknown) => ({ column: 'Cost', is, ...(value !== undefined && { value }) });
const bed = (is: string, value?: unknown) => ({ column: 'Bed', is, ...(value !== undefined && { value }) });

describe('a condition', () => {
	const cases: [what: string, where: object, hit: string][] = [
		['less than', cost('<', 0), '21'],
		['at most', cost('<=', 12), '11 21 51'],
		['equal', cost('=', 12), '11 51'],
		['equal to an amount of one currency', cost('=', '€12.00'), '11'],
		['at least', cost('>=', '€12.00'), '11 41'],
		['more than, in another currency than any', cost('>', '$1.00'), ''],
		['not equal', cost('!=', 12), '21 31 41'],
		['between, the ends among them', cost('between', [0, 12]), '11 51'],
		['between the wrong way round', cost('between', [12, 0]), ''],
		['one of, by value or by text', cost('oneOf', [20, 'n/a']), '31 41'],
		['a percentage by the number shown', { column: 'Share', is: '>', value: 10 }, '12 52'],
		['a percentage with its sign', { column: 'Share', is: '=', value: '10 %' }, '22 42'],
		['a percentage is no money', cost('=', '12 %'), ''],
		['a date before another', { column: 'Seen', is: '<', value: '2031-05-01' }, '13 53'],
		['a date is no number', { column: 'Seen', is: '>', value: 0 }, ''],
		['text that contains', bed('contains', 'e'), '40 50'],
		['text that starts with', bed('startsWith', 'North'), '10 50'],
		['text that ends with', bed('endsWith', 'wall'), '30'],
		['text by a pattern', bed('matches', '^(North|Pond) '), '10 40 50'],
		['a pattern that is none', bed('matches', '(['), ''],
		['empty', { kind: 'percent', is: 'empty' }, '32'],
		['a sign for nothing is empty', cost('empty'), '31'],
		['not a number', { any: [cost('notNumber'), { column: 'Share', is: 'notNumber' }] }, ''],
		['words are not a number', bed('notNumber'), '10 20 30 40 50'],
		['repeated', { column: 'Share', is: 'repeated' }, '12 22 42 52'],
		['nothing is not repeated', { column: 'Seen', is: 'repeated' }, ''],
		['the least', cost('least'), '21'],
		['the greatest, and what is as great', { column: 'Share', is: 'greatest', value: 1 }, '12 52'],
		['the least of more than there are', cost('least', 99), '11 21 41 51'],
		['above the mean', { column: 'Share', is: 'aboveMean' }, '12 52'],
		['below the mean', { column: 'Share', is: 'belowMean' }, '22 42'],
		['changed from the row above', { column: 'State', is: 'changes' }, '34 54'],
		['in rows of another role', { ...cost('>', 0), rows: ['total'] }, '61'],
		['in rows of several', { column: 'Share', is: 'greatest', rows: ['body', 'total'] }, '62'],
		['in a header', { column: 'Bed', is: '=', value: 'Bed', rows: ['header'] }, '00'],
		['of a kind', { kind: 'date', is: '>', value: '2031-05-10' }, '43'],
		['of a column that there is not', { column: 'Beds', is: 'empty' }, ''],
		['all of', { all: [{ kind: 'money', is: '>', value: 0 }, { not: cost('>', 12) }] }, '11 51'],
		['any of', { any: [cost('<', 0), bed('startsWith', 'Old')] }, '21 30']
	];
	for (const [what, where, hit] of cases) it(what, () => assert.equal(hits(where), hit));
});

describe('the reach of a rule', () => {
	it('is the cell, its row or its column, in the rows that the rule speaks of', () => {
		assert.equal(hits(cost('<', 0)), '21');
		assert.equal(hits(cost('<', 0), 'row'), '20 21 22 23 24');
		assert.equal(hits(cost('<', 0), 'column'), '11 21 31 41 51');
		assert.equal(hits({ ...cost('>', 20), rows: ['body', 'total'] }, 'column'), '11 21 31 41 51 61');
	});
});

describe('rows that meet a condition', () => {
	const rows = (where: object) => rowsMeeting(BEDS, where as Condition).flatMap((met, r) => (met ? [r] : []));
	it('have a cell for each of its tests', () => {
		assert.deepEqual(rows({ all: [{ column: 'State', is: '=', value: 'open' }, cost('>', 0)] }), [1, 5]);
		assert.deepEqual(rows({ any: [bed('contains', 'Pond'), cost('<', 0)] }), [2, 4]);
		assert.deepEqual(rows({ not: { column: 'State', is: '=', value: 'open' } }), [0, 3, 4, 6]);
	});
});

describe('laws of conditions', () => {
	const amount = fc.integer({ min: -30, max: 30 });
	it('less, equal and more part the numbers among them; not is the other cells', () => {
		fc.assert(
			fc.property(amount, (value) => {
				const [less, equal, more] = ['<', '=', '>'].map((is) => hits({ column: 'Share', is, value }).split(' '));
				const all = [...less!, ...equal!, ...more!].filter(Boolean).sort();
				assert.deepEqual(all, ['12', '22', '42', '52']);
				const atMost = hits({ column: 'Share', is: '<=', value }).split(' ').filter(Boolean);
				assert.deepEqual(atMost, [...less!, ...equal!].filter(Boolean).sort());
			})
		);
	});
});

describe('an expression from a file', () => {
	const matching = (pattern: string, text: string) => {
		const beds = table(['header:1', 'body'], 1, { cells: [['Bed'], [text]], columns: [{ kind: 'text', name: 'Bed' }] });
		return rowsMeeting(beds, { column: 'Bed', is: 'matches', value: pattern })[1]!;
	};
	it('takes time that grows with the text, whatever it asks for', () => {
		// A matcher that goes back would try some 2^5000 ways.
		for (const pattern of ['(a+)+$', '(a|aa)+$', '^(([a-z])+.)+[A-Z]([a-z])+$', '(.*)*x'])
			assert.equal(matching(pattern, `${'a'.repeat(5_000)}!`), false, pattern);
	});
	it('is that of RE2: what it does not know is met by nothing', () => {
		assert.equal(matching('^N.*(bank|gate)$', 'North bank'), true);
		assert.equal(matching('(?i)north', 'NORTH BANK'), true);
		assert.equal(matching('(a)\\1', 'aa'), false);
		assert.equal(matching('[', '['), false);
	});
});
