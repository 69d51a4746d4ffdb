import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { amended, moved, pushed, redoable, undoable, type Line } from '../../../src/lib/core/history.ts';

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
