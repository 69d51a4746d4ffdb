import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import fc from 'fast-check';
import { Hands, type Hand, type HandLimits, type Job } from '../../../../src/lib/server/front/hands.ts';
import { Waiting } from '../../../../src/lib/server/front/waiting.ts';

const soon = () => new Promise((resolve) => setTimeout(resolve, 5));

class FakeHand implements Hand {
	private leave!: (reason: unknown) => void;
	readonly ended = new Promise((resolve) => (this.leave = resolve));
	spent = false;
	isSpent(): boolean {
		return this.spent;
	}
	end(): void {
		this.leave(undefined);
	}
}
const hands = (limits: Partial<HandLimits> = {}) => {
	const started: FakeHand[] = [];
	const all = new Hands<FakeHand>(
		() => {
			const hand = new FakeHand();
			started.push(hand);
			return Promise.resolve(hand);
		},
		{ least: 1, most: 3, long: 1_000, idle: 60_000, ...limits }
	);
	return { all, started };
};
const job = (person: string, more: Partial<Job> = {}): Job => ({ person, isLong: false, ...more });

describe('waiting jobs', () => {
	it('are taken in turns: between two of one person, everybody else who waits has had one', () => {
		fc.assert(
			fc.property(fc.array(fc.constantFrom('Ada', 'Ben', 'Cleo', 'Dov'), { maxLength: 40 }), (people) => {
				const waiting = new Waiting<{ person: string; number: number }>();
				people.forEach((person, number) => waiting.add({ person, number }));
				const taken: { person: string; number: number }[] = [];
				for (
					let one;
					(one = waiting.next(
						() => 0,
						() => true
					));
				)
					taken.push(one);
				assert.equal(taken.length, people.length);
				assert.equal(waiting.size, 0);
				for (const person of new Set(people)) {
					const own = taken.filter((one) => one.person === person).map(({ number }) => number);
					assert.deepEqual(
						own,
						own.toSorted((a, b) => a - b),
						'the oldest of a person first'
					);
				}
				taken.forEach(({ person }, at) => {
					const next = taken.findIndex((one, later) => later > at && one.person === person);
					const others = new Set(taken.slice(at + 1).map((one) => one.person));
					others.delete(person);
					if (next < 0) return;
					const between = new Set(taken.slice(at + 1, next).map((one) => one.person));
					assert.deepEqual(between, others);
				});
			})
		);
	});

	it('of whom least is at work for come first', () => {
		const waiting = new Waiting<Job>();
		for (const person of ['Ada', 'Ada', 'Ben']) waiting.add(job(person));
		assert.equal(
			waiting.next(
				(person) => (person === 'Ada' ? 2 : 0),
				() => true
			)?.person,
			'Ben'
		);
	});
});

describe('hands', () => {
	// Their own clock does not keep a process alive.
	let alive: ReturnType<typeof setInterval>;
	before(() => void (alive = setInterval(() => undefined, 1_000)));
	after(() => clearInterval(alive));

	it('leave one to the next person, whatever one person asks for', async () => {
		const { all, started } = hands({ least: 3 });
		const begun: string[] = [];
		for (let i = 0; i < 10; i++)
			void all.take(job('Ada')).then(
				() => begun.push('Ada'),
				() => undefined
			);
		await soon();
		await soon();
		assert.deepEqual(begun, ['Ada', 'Ada']);
		void all.take(job('Ben')).then(() => begun.push('Ben'));
		await soon();
		assert.deepEqual(begun, ['Ada', 'Ada', 'Ben']);
		assert.equal(started.length, 3);
		assert.equal(all.counts.waiting, 8);
		all.close();
	});

	it('leave one to what is not long, whoever asks', async () => {
		const { all } = hands({ least: 3 });
		const begun: string[] = [];
		for (const person of ['Ada', 'Ben', 'Cleo'])
			void all.take(job(person, { isLong: true })).then(
				() => begun.push(person),
				() => undefined
			);
		await soon();
		assert.deepEqual(begun, ['Ada', 'Ben']);
		void all.take(job('Dov')).then(() => begun.push('Dov'));
		await soon();
		assert.deepEqual(begun, ['Ada', 'Ben', 'Dov']);
		all.close();
	});

	it('grow where all have been at work for long, and shrink when they have nothing to do', async () => {
		const { all, started } = hands({ long: 20, idle: 30 });
		const first = await all.take(job('Ada'));
		const second = await all.take(job('Ben'));
		assert.notEqual(first, second);
		assert.equal(started.length, 2);
		all.give(first);
		all.give(second);
		await new Promise((resolve) => setTimeout(resolve, 120));
		assert.equal(all.counts.hands, 1);
		all.close();
	});

	it('that know a subject are preferred for it', async () => {
		const { all } = hands({ least: 2 });
		const first = await all.take(job('Ada', { subject: 'a' }));
		const second = await all.take(job('Ben', { subject: 'b' }));
		all.give(second);
		all.give(first);
		assert.equal(await all.take(job('Cleo', { subject: 'b' })), second);
		assert.equal(await all.take(job('Dov', { subject: 'a' })), first);
		all.close();
	});

	it('that are spent or have ended are replaced', async () => {
		const { all, started } = hands();
		const first = await all.take(job('Ada'));
		first.spent = true;
		all.give(first);
		const second = await all.take(job('Ada'));
		second.end();
		await second.ended;
		all.give(second);
		const third = await all.take(job('Ada'));
		assert.equal(started.length, 3);
		assert.deepEqual([first, second, third], started);
		all.close();
	});

	it('are not taken by who went away, and by nobody once they are closed', async () => {
		const { all } = hands({ most: 2 });
		const own = await all.take(job('Ada'));
		const gone = new AbortController();
		const asked = all.take(job('Ada'), gone.signal);
		gone.abort(new Error('went away'));
		await assert.rejects(asked, /went away/);
		const late = all.take(job('Ada'));
		all.close();
		await assert.rejects(late, /stopping/);
		await assert.rejects(all.take(job('Ben')), /stopping/);
		await own.ended;
	});
});
