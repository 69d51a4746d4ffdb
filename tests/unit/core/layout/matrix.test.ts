import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import {
	apply,
	fitViewBox,
	IDENTITY,
	invert,
	mapped,
	multiply,
	overlaps,
	parseNumbers,
	parseTransform,
	parseViewBox,
	type Matrix
} from '../../../../src/lib/core/layout/matrix.ts';

const near = (a: number, b: number, within = 1e-9) =>
	assert.ok(Math.abs(a - b) <= within * Math.max(1, Math.abs(a), Math.abs(b)), `${a} is not ${b}`);
const number = fc.double({ min: -1e4, max: 1e4, noNaN: true });
const matrix = fc.tuple(number, number, number, number, number, number) as fc.Arbitrary<Matrix>;

describe('affine maps', () => {
	it('read transforms as SVG writes them, one after the other', () => {
		const cases: [string, number, number, number, number][] = [
			['translate(10)', 1, 2, 11, 2],
			['translate(10,5) scale(2)', 1, 2, 12, 9],
			['scale(2) translate(10 5)', 1, 2, 22, 14],
			['rotate(90)', 1, 0, 0, 1],
			['rotate(90, 1 1)', 2, 1, 1, 2],
			['matrix(1 0 0 -1 0 100)', 3, 20, 3, 80],
			['skewX(45)', 0, 1, 1, 1],
			['  translate( 1e1 -.5 ) , rotate(180) ', 1, 1, 9, -1.5]
		];
		for (const [text, x, y, toX, toY] of cases) {
			const to = apply(parseTransform(text), x, y);
			near(to.x, toX);
			near(to.y, toY);
		}
	});
	it('one that is not valid maps nothing', () => {
		for (const text of [
			'',
			'turn(3)',
			'rotate()',
			'matrix(1 2 3)',
			'translate(1,b)',
			'translate(1) nonsense',
			undefined
		])
			assert.deepEqual(parseTransform(text), IDENTITY, text);
	});
	it('come back by their inverse, and compose as their points do', () => {
		fc.assert(
			fc.property(matrix, matrix, number, number, (outer, inner, x, y) => {
				const once = apply(inner, x, y);
				const twice = apply(outer, once.x, once.y);
				const both = apply(multiply(outer, inner), x, y);
				near(both.x, twice.x, 1e-6);
				near(both.y, twice.y, 1e-6);
			})
		);
		fc.assert(
			fc.property(
				fc.double({ min: 0.01, max: 100, noNaN: true }),
				fc.double({ min: -360, max: 360, noNaN: true }),
				number,
				number,
				(scale, angle, x, y) => {
					const map = parseTransform(`translate(${x} ${y}) rotate(${angle}) scale(${scale})`);
					const there = apply(map, 3, 4);
					const back = apply(invert(map)!, there.x, there.y);
					near(back.x, 3, 1e-6);
					near(back.y, 4, 1e-6);
				}
			)
		);
		assert.equal(invert([1, 2, 2, 4, 0, 0]), undefined);
	});
	it('a viewBox says nothing where it has no area', () => {
		for (const text of ['0 0 -5 10', '0 0 0 10', '1 2 3', 'a b c d', '', undefined])
			assert.equal(parseViewBox(text), undefined, text);
		assert.deepEqual(parseViewBox('1,2 3 4'), { x: 1, y: 2, width: 3, height: 4 });
	});
	it('a viewBox is fitted whole and in the middle, or as it is asked to be', () => {
		const box = { x: 10, y: 0, width: 100, height: 50 };
		assert.deepEqual(apply(fitViewBox(box, 200, 200), 10, 0), { x: 0, y: 50 });
		assert.deepEqual(apply(fitViewBox(box, 200, 200, 'xMinYMax meet'), 110, 50), { x: 200, y: 200 });
		assert.deepEqual(apply(fitViewBox(box, 200, 200, 'none'), 110, 50), { x: 200, y: 200 });
		assert.deepEqual(apply(fitViewBox(box, 200, 200, 'xMidYMid slice'), 60, 25), { x: 100, y: 100 });
	});
	it('rectangles are mapped to what is around them', () => {
		const turned = mapped(parseTransform('rotate(90)'), { x1: 0, y1: 0, x2: 4, y2: 2 });
		near(turned.x1, -2);
		near(turned.y2, 4);
		assert.ok(overlaps({ x1: 0, y1: 0, x2: 2, y2: 2 }, { x1: 1, y1: 1, x2: 3, y2: 3 }));
		assert.ok(!overlaps({ x1: 0, y1: 0, x2: 2, y2: 2 }, { x1: 2, y1: 0, x2: 3, y2: 3 }));
	});
	it('numbers stand with or without commas', () => {
		assert.deepEqual(parseNumbers('1,2 -3.5e1.5'), [1, 2, -35, 0.5]);
		assert.equal(parseNumbers('1 px'), undefined);
	});
});
