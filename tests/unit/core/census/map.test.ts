import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { mapOf } from '../../../../src/lib/core/census/map.ts';

const anyPoints = fc.array(fc.tuple(fc.integer({ min: -20, max: 20 }), fc.integer({ min: -20, max: 20 })), {
	minLength: 2,
	maxLength: 30
});

describe('a map of distances', () => {
	it('keeps those of a plane, up to one scale, and is the same each time', () => {
		fc.assert(
			fc.property(anyPoints, (points) => {
				const apart = (a: number, b: number) =>
					Math.hypot(points[a]![0] - points[b]![0], points[a]![1] - points[b]![1]);
				const spots = mapOf(points.length, apart);
				assert.deepEqual(mapOf(points.length, apart), spots);
				const shown = (a: number, b: number) => Math.hypot(spots[a]!.x - spots[b]!.x, spots[a]!.y - spots[b]!.y);
				const pairs = points.flatMap((_, a) => points.slice(0, a).map((_, b) => [a, b] as const));
				const most = pairs.reduce((far, pair) => (apart(...pair) > apart(...far) ? pair : far), pairs[0]!);
				if (apart(...most) === 0) return;
				const scale = shown(...most) / apart(...most);
				for (const pair of pairs) assert.ok(Math.abs(shown(...pair) - scale * apart(...pair)) < 1e-6);
				assert.ok(spots.every(({ x, y }) => Math.abs(x) <= 1 && Math.abs(y) <= 1));
			})
		);
	});
	it('takes none, one, and several that are all the same', () => {
		assert.deepEqual(
			mapOf(0, () => 0),
			[]
		);
		assert.deepEqual(
			mapOf(1, () => 0),
			[{ x: 0, y: 0 }]
		);
		for (const { x, y } of mapOf(4, () => 0)) assert.ok(Math.abs(x) <= 1 && Math.abs(y) <= 1);
	});
});
