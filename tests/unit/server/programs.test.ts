import assert from 'node:assert/strict';
import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { after, before, describe, it } from 'node:test';
import fc from 'fast-check';
import { sql, type Kysely } from 'kysely';
import { connect, type Database } from '../../../src/lib/server/database.ts';
import { actAs } from '../../../src/lib/server/people/acting.ts';
import { connectDoor } from '../../../src/lib/server/people/door.ts';
import { makePerson } from '../../../src/lib/server/people/entrance.ts';
import { beginHouse } from '../../../src/lib/server/people/founding.ts';
import { Deliveries, deliverNext } from '../../../src/lib/server/programs/deliver.ts';
import { announce, isOutside } from '../../../src/lib/server/programs/webhooks.ts';
import { onlyHouse, ownDatabase } from '../../database.ts';

describe('telling addresses of events', () => {
	let db: Kysely<Database>;
	before(async () => {
		({ db } = await ownDatabase('empty'));
		await db
			.insertInto('webhooks')
			.values({ url: 'https://127.0.0.1/hear', events: ['run.done'] })
			.execute();
	});
	after(() => db.destroy());

	it('is tried seven times and given up, also where a worker is lost in the middle of any try', async () => {
		for (let lost = 0; lost <= 8; lost++) {
			await announce(db, 'run.done', `run ${lost}`, { run: lost });
			// As a worker leaves it that claimed so many tries and ended before it said how they went.
			await sql`update deliveries set attempts = ${lost} where subject = ${`run ${lost}`}`.execute(db);
			let tries = 0;
			while (await deliverNext(db, 'secret', [])) {
				tries++;
				assert.ok(tries < 20);
				await sql`update deliveries set next_at = now()`.execute(db);
			}
			assert.equal(tries, Math.max(1, 7 - lost), `after ${lost} that were lost`);
		}
		const rows = await db.selectFrom('deliveries').select(['given_up_at', 'told_at', 'said']).execute();
		for (const { given_up_at, told_at, said } of rows) {
			assert.ok(given_up_at && !told_at);
			assert.match(said!, /of this machine or of a private network/);
		}
	});
	it('an address that is slow keeps nobody of another house waiting, and no more than four tries of its own', async () => {
		const { db: own, url } = await ownDatabase('empty');
		await own.destroy();
		const asked: string[] = [];
		const server = createServer((request, answer) => {
			asked.push(request.url!);
			// The slow one does not answer at all.
			if (request.url === '/fast') answer.end();
		});
		await once(server.listen(0, '127.0.0.1'), 'listening');
		const { port } = server.address() as AddressInfo;
		process.env.HEPTARCH_WEBHOOKS = `127.0.0.1:${port}`;
		const acting = connect(url);
		const door = connectDoor(url);
		// The slow one comes first in every round.
		const slow = await onlyHouse(url);
		const fast = await beginHouse(door, 'Beside it', await makePerson(door, 'Una'));
		await door.destroy();
		const inHouse = <T>(house: string, work: () => Promise<T>) => actAs({ house, person: null }, work);
		for (const [house, path, count] of [
			[slow, 'slow', 9],
			[fast, 'fast', 20]
		] as const)
			await inHouse(house, async () => {
				await acting
					.insertInto('webhooks')
					.values({ url: `http://127.0.0.1:${port}/${path}`, events: ['run.done'] })
					.execute();
				for (let i = 0; i < count; i++) await announce(acting, 'run.done', `run ${i}`, { run: i });
			});
		const faults: Error[] = [];
		const deliveries = new Deliveries(acting, url, (error) => faults.push(error));
		deliveries.start();
		const waiting = () =>
			inHouse(fast, () => acting.selectFrom('deliveries').select('id').where('told_at', 'is', null).execute());
		for (let i = 0; i < 500 && (await waiting()).length; i++) await new Promise((resolve) => setTimeout(resolve, 10));
		assert.equal((await waiting()).length, 0);
		assert.equal(asked.filter((path) => path === '/slow').length, 4);
		server.closeAllConnections();
		server.close();
		await deliveries.stop();
		await acting.destroy();
		delete process.env.HEPTARCH_WEBHOOKS;
		assert.deepEqual(faults, []);
	});
	it('what happened is told once, however often it is announced', async () => {
		await announce(db, 'run.done', 'the same', {});
		await announce(db, 'run.done', 'the same', {});
		await announce(db, 'edition.published', 'nobody listens', {});
		const rows = await db
			.selectFrom('deliveries')
			.select('id')
			.where('subject', 'in', ['the same', 'nobody listens'])
			.execute();
		assert.equal(rows.length, 1);
	});
	it('no address of loopback, of private networks or mapped into IPv6 is outside', () => {
		const byte = fc.nat(255);
		const inside = fc.oneof(
			fc.tuple(fc.constantFrom(0, 10, 127), byte, byte, byte),
			fc.tuple(fc.constant(172), fc.integer({ min: 16, max: 31 }), byte, byte),
			fc.tuple(fc.constant(192), fc.constant(168), byte, byte),
			fc.tuple(fc.constant(169), fc.constant(254), byte, byte),
			fc.tuple(fc.integer({ min: 224, max: 255 }), byte, byte, byte)
		);
		fc.assert(
			fc.property(inside, (bytes) => {
				const address = bytes.join('.');
				const [a, b, c, d] = bytes;
				const hex = (high: number, low: number) => ((high << 8) | low).toString(16);
				for (const one of [address, `::ffff:${address}`, `64:ff9b::${address}`, `2002:${hex(a, b)}:${hex(c, d)}::1`])
					assert.equal(isOutside(one), false, one);
			})
		);
		for (const one of ['::1', '::', 'fe80::1', 'fd00::1', 'ff02::1', 'nowhere'])
			assert.equal(isOutside(one), false, one);
		for (const one of ['93.184.215.14', '2606:4700::1111']) assert.equal(isOutside(one), true, one);
	});
});
