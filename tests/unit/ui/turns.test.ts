import assert from 'node:assert/strict';
import { it } from 'node:test';
import { turns } from '../../../src/lib/ui/turns.ts';

it('does one thing after the other, in the order they were asked for, whatever fails', async () => {
	const inTurn = turns();
	const log: string[] = [];
	const work = (name: string, rest: number, fails = false) =>
		inTurn(async () => {
			log.push(`${name} begins`);
			await new Promise((done) => setTimeout(done, rest));
			log.push(`${name} ends`);
			if (fails) throw new Error(name);
			return name;
		});
	const all = await Promise.allSettled([work('save', 20), work('late', 5, true), work('undo', 0)]);
	assert.deepEqual(log, ['save begins', 'save ends', 'late begins', 'late ends', 'undo begins', 'undo ends']);
	assert.deepEqual(
		all.map((one) => (one.status === 'fulfilled' ? one.value : (one.reason as Error).message)),
		['save', 'late', 'undo']
	);
	assert.deepEqual(
		all.map(({ status }) => status),
		['fulfilled', 'rejected', 'fulfilled']
	);
});
