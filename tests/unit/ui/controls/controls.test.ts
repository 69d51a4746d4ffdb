import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { parseColour, parseNumber } from '../../../../src/lib/ui/controls/fields.ts';
import { nextItem } from '../../../../src/lib/ui/controls/roving.ts';
import { isStroke, runShortcut, type Shortcut } from '../../../../src/lib/ui/controls/shortcuts.ts';

const press = (key: string, held = ''): KeyboardEvent =>
	({
		key,
		ctrlKey: held.includes('c'),
		metaKey: held.includes('m'),
		altKey: held.includes('a'),
		shiftKey: held.includes('s'),
		preventDefault() {}
	}) as unknown as KeyboardEvent;

describe('strokes', () => {
	for (const [stroke, event, is] of [
		['B', press('b'), true],
		['B', press('B', 's'), true],
		['B', press('b', 'c'), false],
		['?', press('?', 's'), true],
		['?', press('?'), true],
		['+', press('+'), true],
		['Ctrl+Z', press('z', 'c'), true],
		['Ctrl+Z', press('z', 'm'), true],
		['Ctrl+Z', press('Z', 'cs'), false],
		['Ctrl+Shift+Z', press('Z', 'cs'), true],
		['Ctrl+Shift+Z', press('z', 'c'), false],
		['Shift+ ', press(' ', 's'), true],
		['Shift+ ', press(' '), false],
		['ArrowUp', press('ArrowUp', 's'), false],
		['Shift+ArrowUp', press('ArrowUp', 's'), true],
		['Alt+1', press('1', 'a'), true],
		['character', press('é'), true],
		['character', press('Enter'), false],
		['character', press('a', 'c'), false]
	] as const)
		it(`${stroke} ${is ? 'is' : 'is not'} ${JSON.stringify(event)}`, () => assert.equal(isStroke(event, stroke), is));

	it('runs the first that acts now, and none while a field takes text unless it says so', () => {
		const ran: string[] = [];
		const list: Shortcut[] = [
			{ keys: ['Escape'], when: () => false, run: () => ran.push('never') },
			{ keys: ['Escape'], run: () => ran.push('first') },
			{ keys: ['Escape'], whileTyping: true, run: () => ran.push('typing') },
			{ keys: ['x'], does: 'only listed' }
		];
		assert.ok(runShortcut(list, press('Escape')));
		assert.ok(runShortcut(list, press('Escape'), true));
		assert.equal(runShortcut(list, press('x')), false);
		assert.deepEqual(ran, ['first', 'typing']);
	});
});

describe('arrow keys in a set', () => {
	it('lead to an item of it, wherever they are pressed; right and left take each other back', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 40 }),
				fc.nat(),
				fc.integer({ min: 1, max: 4 }),
				(count, place, columns) => {
					const at = place % count;
					for (const key of ['ArrowRight', 'ArrowLeft', 'ArrowUp', 'ArrowDown', 'Home', 'End']) {
						const next = nextItem(key, at, count, columns)!;
						assert.ok(Number.isInteger(next) && next >= 0 && next < count, `${key} led to ${next}`);
					}
					assert.equal(nextItem('ArrowLeft', nextItem('ArrowRight', at, count, columns)!, count, columns), at);
					assert.equal(nextItem('a', at, count, columns), undefined);
				}
			)
		);
	});
	it('go down a column of a grid, and stay at its foot', () => {
		assert.equal(nextItem('ArrowDown', 1, 5, 2), 3);
		assert.equal(nextItem('ArrowDown', 4, 5, 2), 4);
		assert.equal(nextItem('ArrowUp', 3, 5, 2), 1);
	});
});

describe('fields', () => {
	it('read a number within its bounds, whichever the mark, and say what is wrong with others', () => {
		const bounds = { least: 0, most: 10, unit: 'mm' };
		assert.deepEqual(parseNumber('2,5', bounds), { value: 2.5 });
		assert.deepEqual(parseNumber('2.5 mm', bounds), { value: 2.5 });
		assert.deepEqual(parseNumber('11', bounds), { fault: 'It goes from 0 to 10.' });
		assert.deepEqual(parseNumber('−1', { least: 0, most: Infinity }), { fault: 'It is 0 or more.' });
		assert.deepEqual(parseNumber('1.5', { ...bounds, isWhole: true }), { fault: '“1.5” is not a whole number.' });
		assert.deepEqual(parseNumber('mm', bounds), { fault: '“mm” is not a number.' });
	});
	it('give every number within the bounds as it was written', () => {
		fc.assert(
			fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (value) => {
				// Written, −0 is 0.
				assert.deepEqual(parseNumber(String(value), { least: -1e6, most: 1e6 }), { value: value + 0 });
			})
		);
	});
	it('read a colour in any way of CSS, or say how one is written', () => {
		assert.deepEqual(parseColour('2f5d50'), { value: '#2F5D50' });
		assert.deepEqual(parseColour('rgb(47 93 80)'), { value: '#2F5D50' });
		assert.match(JSON.stringify(parseColour('green-ish')), /fault/);
	});
});
