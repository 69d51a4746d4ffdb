import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { amended, laidOver, moved, pushed, redoable, undoable, type Line } from '../../../src/lib/core/history.ts';

type Step = { readonly label: string };

describe('a line of steps', () => {
	const ops = fc.array(
		fc.oneof(
			fc.record({ do: fc.constant('push' as const), label: fc.string({ minLength: 1, maxLength: 4 }) }),
			fc.record({ do: fc.constant('amend' as const), label: fc.string({ minLength: 1, maxLength: 4 }) }),
			fc.record({ do: fc.constant('move' as const), to: fc.integer({ min: -2, max: 12 }) })
		),
		{ maxLength: 30 }
	);

	it('stands at the last thing done, undoes to what was before it, and forgets what was undone once something new comes', () => {
		fc.assert(
			fc.property(ops, (list) => {
				let line: Line<Step> = { steps: [{ label: 'as it began' }], at: 0 };
				for (const op of list) {
					const before = line;
					if (op.do === 'move') {
						line = moved(line, op.to);
						const isThere = op.to >= 0 && op.to < before.steps.length;
						assert.equal(line.at, isThere ? op.to : before.at);
						assert.equal(line.steps, before.steps, 'moving changes no step');
						continue;
					}
					line = (op.do === 'push' ? pushed : amended)(line, { label: op.label });
					assert.equal(line.steps[line.at]!.label, op.label);
					assert.equal(redoable(line), undefined);
					if (op.do === 'push') {
						assert.equal(undoable(line), op.label);
						assert.deepEqual(moved(line, line.at - 1).steps[before.at], before.steps[before.at]);
						assert.equal(redoable(moved(line, line.at - 1)), op.label);
					} else assert.equal(line.at, before.at);
				}
			})
		);
	});

	it('keeps the newest only where there is a most', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 30 }), (most, count) => {
				let line: Line<Step> = { steps: [{ label: '0' }], at: 0 };
				for (let n = 1; n <= count; n++) line = pushed(line, { label: String(n) }, most);
				assert.equal(line.steps.length, Math.min(most, count + 1));
				assert.equal(line.at, line.steps.length - 1);
				assert.equal(line.steps[line.at]!.label, String(count));
			})
		);
	});
});

describe('a change laid over what stands now', () => {
	type Any = Readonly<Record<string, unknown>>;
	const leaf = fc.oneof(fc.integer(), fc.string({ maxLength: 3 }), fc.array(fc.integer(), { maxLength: 2 }));
	const key = fc.constantFrom('a', 'b', 'c', 'd');
	const thing: fc.Arbitrary<Any> = fc.dictionary(key, fc.oneof(leaf, fc.dictionary(key, leaf)));
	const plain = (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown;

	it('is the change itself where nothing else changed, and nothing where it changed nothing', () => {
		fc.assert(
			fc.property(thing, thing, (seen, next) => {
				assert.deepEqual(plain(laidOver(seen, seen, next)), plain(next));
				assert.deepEqual(plain(laidOver(next, seen, seen)), plain(next));
			})
		);
	});
	it('keeps both of two changes to different things, whichever comes first', () => {
		fc.assert(
			fc.property(thing, fc.integer(), fc.integer(), (seen, one, two) => {
				const first = { ...seen, one, deep: { x: one } };
				const base = { ...seen, deep: {} };
				const second = { ...base, two, deep: { y: two } };
				const both = laidOver({ ...first, deep: { x: one } } as Any, base as Any, second as Any);
				assert.deepEqual(plain(both), plain({ ...seen, one, two, deep: { x: one, y: two } }));
			})
		);
	});
});
