import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { RowHeights } from '../../../../src/lib/ui/table/heights.ts';

test('heights add up as one by one, whatever was measured, and a distance finds its row', () => {
	fc.assert(
		fc.property(
			fc.integer({ min: 1, max: 2_000 }),
			fc.array(fc.tuple(fc.nat(1_999), fc.integer({ min: 1, max: 90 })), { maxLength: 60 }),
			fc.nat(2_000),
			fc.nat(2_000),
			(rows, measured, a, b) => {
				const heights = new RowHeights(rows);
				const known = new Map<number, number>();
				for (const [row, height] of measured)
					if (row < rows) {
						heights.set(row, height);
						known.set(row, height);
					}
				const guess = known.size ? [...known.values()].reduce((sum, one) => sum + one, 0) / known.size : 26;
				const one = (row: number) => known.get(row) ?? guess;
				const [from, to] = [Math.min(a, b, rows), Math.min(Math.max(a, b), rows)];
				let sum = 0;
				for (let row = from; row < to; row++) sum += one(row);
				assert.ok(Math.abs(heights.between(from, to) - sum) < 1e-6 * (1 + sum));
				if (from < rows) assert.equal(heights.at(heights.between(0, from) + one(from) / 2), from);
				assert.equal(heights.at(-5), 0);
				assert.equal(heights.at(1e9), rows - 1);
			}
		)
	);
});
