import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { hiddenWithin, isInside, objectAt, rings, snapped } from '../../../../src/lib/ui/sheet/pointing.ts';

describe('snapping', () => {
	const lines = { x: [10, 100], y: [20] };
	const box = { width: 30, height: 10 };
	it('takes the nearest line for either edge, each way by itself', () => {
		assert.deepEqual(snapped({ x: 11, y: 50, ...box }, lines, 2), { x: 10, y: 50, on: { x: 10 } });
		// The right edge, at 99, is nearer to 100 than the left one to anything.
		assert.deepEqual(snapped({ x: 69, y: 9.5, ...box }, lines, 2), { x: 70, y: 10, on: { x: 100, y: 20 } });
		assert.deepEqual(snapped({ x: 50, y: 50, ...box }, lines, 2), { x: 50, y: 50, on: {} });
	});
	it('never moves a box by more than it may, and lands an edge on a line', () => {
		const number = fc.integer({ min: -200, max: 200 });
		fc.assert(
			fc.property(
				number,
				number,
				fc.integer({ min: 1, max: 90 }),
				fc.array(number),
				fc.array(number),
				(x, y, width, xs, ys) => {
					const near = 5;
					const to = snapped({ x, y, width, height: width }, { x: xs, y: ys }, near);
					assert.ok(Math.abs(to.x - x) < near && Math.abs(to.y - y) < near);
					if (to.on.x !== undefined) assert.ok(to.x === to.on.x || to.x + width === to.on.x);
					else assert.ok(xs.every((line) => Math.abs(line - x) >= near && Math.abs(line - x - width) >= near));
				}
			)
		);
	});
});

describe('what is at a place', () => {
	const objects = { extents: [0, 0, 100, 100, 10, 10, 20, 20, 15, 15, 18, 18, 50, 50, 50, 50] };
	it('is the smallest object there', () => {
		assert.equal(objectAt(objects, { x: 16, y: 16 }, 0), 2);
		assert.equal(objectAt(objects, { x: 11, y: 11 }, 0), 1);
		assert.equal(objectAt(objects, { x: 90, y: 5 }, 0), 0);
		assert.equal(objectAt(objects, { x: 200, y: 5 }, 0), -1);
	});
	it('is one without size where the pointer comes near it', () => {
		assert.equal(objectAt(objects, { x: 50.4, y: 50 }, 0.5), 3);
		assert.equal(objectAt({ extents: [] }, { x: 0, y: 0 }, 5), -1);
	});
	it('is inside a box with its edges', () => {
		const box = { x: 1, y: 1, width: 2, height: 2 };
		assert.ok(isInside({ x: 3, y: 1 }, box));
		assert.ok(!isInside({ x: 3.1, y: 1 }, box));
	});
	it('is ringed where it is lit, the tiny ones large enough to be seen', () => {
		assert.equal(
			rings(objects, (i) => i === 1),
			'M10 15a5 5 0 1 0 10 0a5 5 0 1 0 -10 0Z'
		);
		assert.match(
			rings(objects, (i) => i === 3),
			/^M49\.4 50a0\.6 0\.6/
		);
		assert.equal(
			rings(objects, () => false),
			''
		);
	});
});

describe('hidden layers', () => {
	// a, a/b, a/b/c, a/d, e, e/f
	const layers = [0, 1, 2, 1, 0, 1].map((depth) => ({ depth }));
	const hidden = (...indices: number[]) => hiddenWithin(layers, new Set(indices));
	it('hide what stands in them, and nothing after them', () => {
		assert.deepEqual(hidden(), []);
		assert.deepEqual(hidden(0), [0, 1, 2, 3]);
		assert.deepEqual(hidden(1), [1, 2]);
		assert.deepEqual(hidden(2), [2]);
		assert.deepEqual(hidden(3, 4), [3, 4, 5]);
		assert.deepEqual(hidden(1, 2), [1, 2]);
		assert.deepEqual(hidden(0, 2, 5), [0, 1, 2, 3, 5]);
	});
});
