import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import fc from 'fast-check';
import { sql, type Kysely } from 'kysely';
import type { Database } from '../../../../src/lib/server/database.ts';
import { listLog } from '../../../../src/lib/server/house/log.ts';
import { describeError } from '../../../../src/lib/server/http/answers.ts';
import { makeAuth } from '../../../../src/lib/server/people/auth.ts';
import { connectDoor, type Door } from '../../../../src/lib/server/people/door.ts';
import {
	changePassword,
	enterBy,
	invite,
	passwordLink,
	signIn,
	type Entrance
} from '../../../../src/lib/server/people/entrance.ts';
import { beginHouse } from '../../../../src/lib/server/people/founding.ts';
import { makeLink, openLink } from '../../../../src/lib/server/people/links.ts';
import { housesOf, join, leave, listMembers, setRole } from '../../../../src/lib/server/people/members.ts';
import {
	beginSecond,
	confirmSecond,
	saySecond,
	takeSecondFrom
} from '../../../../src/lib/server/people/second-factor.ts';
import { endSession, listSessions } from '../../../../src/lib/server/people/sessions.ts';
import { isClosed, listensOnLoopback, whoAsks, type Who } from '../../../../src/lib/server/people/who.ts';
import { may, ROLES, type Role } from '../../../../src/lib/workbench/roles.ts';
import { ownDatabase } from '../../../database.ts';
import { codeAt } from '../../../totp.ts';
import { runs } from '../../runs.ts';

const HERE = { HOST: '127.0.0.1' };
const PASSWORD = 'four ferns in a row';
const from = (address: string, headers: Record<string, string> = {}) => ({ address, headers: new Headers(headers) });
const saidOf = (work: Promise<unknown>) =>
	work.then(
		() => assert.fail('it worked'),
		(error: unknown) => {
			const described = describeError(error);
			if (!described) throw error;
			return described;
		}
	);
const cookiesOf = async (...asked: Parameters<typeof signIn>) => (await signIn(...asked)).cookies;
/** What a browser sends of the cookies that it was given. */
const cookie = (set: readonly string[]) => ({ cookie: set.map((one) => one.split(';')[0]!).join('; ') });

describe('people', () => {
	let db: Kysely<Database>;
	let door: Door;
	let entrance: Entrance;
	before(async () => {
		const own = await ownDatabase('empty');
		db = own.db;
		door = connectDoor(own.url);
		entrance = { door, auth: makeAuth(door, 'a secret of tests that is long enough for it', undefined) };
	});
	after(() => Promise.all([db.destroy(), door.destroy()]));

	const asks = (headers: Record<string, string>, env: Record<string, string> = HERE) =>
		whoAsks(door, entrance.auth, new Headers({ host: '127.0.0.1:4700', ...headers }), env);
	let keeper: Who;
	let keeperCookie: { cookie: string };

	it('as long as its only person has no password, whoever opens the plain address on this machine is that keeper', async () => {
		keeper = (await asks({}))!;
		assert.equal(keeper.role, 'keeper');
		assert.ok(await asks({ host: 'localhost:4700' }));
		assert.ok(await asks({ host: '[::1]:4700' }));
	});
	it('nobody else is: another name, a proxy, a server that listens elsewhere', async () => {
		for (const headers of [
			{ host: 'thornmere.example' },
			{ host: '127.0.0.1.example' },
			{ host: '192.0.2.7:4700' },
			{ host: '' },
			{ 'x-forwarded-for': '192.0.2.7' },
			{ forwarded: 'for=192.0.2.7' },
			{ via: '1.1 proxy' }
		])
			assert.equal(await asks(headers as unknown as Record<string, string>), undefined, JSON.stringify(headers));
		for (const env of [
			{},
			{ HOST: '0.0.0.0' },
			{ HOST: '::' },
			{ HOST: '192.0.2.7' },
			{ ...HERE, ORIGIN: 'https://thornmere.example' }
		])
			assert.equal(await asks({}, env as Record<string, string>), undefined, JSON.stringify(env));
		assert.equal(listensOnLoopback({ HOST: 'localhost', ORIGIN: 'http://127.0.0.1:4700' }), true);
		assert.equal(await isClosed(door), false);
	});
	it('an invitation ends that for good; whoever invited stays signed in, by a session', async () => {
		const { token, cookies } = await invite(entrance, keeper, { name: 'Ines', role: 'author' }, new Headers());
		assert.equal(await isClosed(door), true);
		assert.equal(await asks({}), undefined);
		keeperCookie = cookie(cookies);
		assert.equal((await asks(keeperCookie))!.person, keeper.person);
		assert.match(cookies.join(), /HttpOnly/i);
		assert.match(cookies.join(), /SameSite=Lax/i);
		assert.equal(await asks({ cookie: keeperCookie.cookie.replace(/.{6}$/, 'AAAAA=') }), undefined, 'a forged one');

		assert.equal(
			(
				await saidOf(
					enterBy(entrance, token, { name: 'Ines', username: 'ines', password: 'short' }, undefined, new Headers())
				)
			).body.where,
			'/password'
		);
		const came = await enterBy(
			entrance,
			token,
			{ name: 'Ines', username: 'Ines', password: PASSWORD },
			undefined,
			new Headers()
		);
		const ines = (await asks(cookie(came)))!;
		assert.deepEqual([ines.name, ines.role, ines.house], ['Ines', 'author', keeper.house]);
		assert.equal((await saidOf(openLink(door, token))).status, 410, 'it leads in once');
		assert.equal((await saidOf(enterBy(entrance, token, {}, undefined, new Headers()))).status, 410);
	});
	it('a link that has expired, or was never made, leads nowhere; what it says is kept nowhere', async () => {
		const token = await makeLink(door, { kind: 'entry', person: keeper.person });
		const { links } = { links: await door.selectFrom('links').selectAll().execute() };
		assert.ok(links.every((link) => !JSON.stringify(link).includes(token)));
		await door
			.updateTable('links')
			.set({ expiresAt: new Date(0) })
			.execute();
		assert.match((await saidOf(enterBy(entrance, token, {}, undefined, new Headers()))).body.message, /expired/);
		assert.equal((await saidOf(openLink(door, 'nothing'))).status, 410);
	});
	it('of many who use one link at once, one comes in', async () => {
		const token = await makeLink(door, { kind: 'entry', person: keeper.person });
		const came = await Promise.allSettled(
			Array.from({ length: 8 }, () => enterBy(entrance, token, {}, undefined, new Headers()))
		);
		assert.equal(came.filter(({ status }) => status === 'fulfilled').length, 1);
	});
	it('name and password lead in, whatever the case of the name, and nothing else does', async () => {
		assert.ok((await cookiesOf(entrance, 'INES', PASSWORD, from('192.0.2.1'))).length);
		for (const [name, password] of [
			['ines', 'five ferns in a row'],
			['nobody', PASSWORD],
			['', PASSWORD],
			["ines' or true --", PASSWORD]
		] as const) {
			const { status, body } = await saidOf(signIn(entrance, name, password, from('192.0.2.1')));
			assert.deepEqual([status, body.message], [401, 'No person here has this name and this password.'], name);
		}
	});
	it('a link that did not lead in leads in once more: of two who want one name at once, one has it', async () => {
		const { house, person } = keeper;
		const links = await Promise.all(
			['Bo', 'Una'].map(() => makeLink(door, { kind: 'invitation', house, role: 'reader', madeBy: person }))
		);
		const enter = (token: string, username: string) =>
			enterBy(entrance, token, { name: 'Somebody', username, password: PASSWORD }, undefined, new Headers());
		const came = await Promise.allSettled(links.map((token) => enter(token, 'somebody')));
		assert.deepEqual(came.map(({ status }) => status).sort(), ['fulfilled', 'rejected']);
		const left = links[came.findIndex(({ status }) => status === 'rejected')]!;
		const before = await door.selectFrom('people').select('id').execute();
		assert.equal((await saidOf(enter(left, 'SOMEBODY'))).body.where, '/username');
		assert.equal((await door.selectFrom('people').select('id').execute()).length, before.length, 'nobody by half');
		assert.ok((await enter(left, 'somebody else')).length);
		assert.equal((await saidOf(enter(left, 'a third one'))).status, 410);
	});
	it('whoever tries the name of somebody else does not lock them out where they are', async () => {
		const statuses: { status: number }[] = [];
		for (let i = 0; i < 40; i++)
			statuses.push(await saidOf(signIn(entrance, 'ines', `wrong ${i} times`, from('192.0.2.66'))));
		assert.equal(statuses.filter(({ status }) => status === 401).length, 10);
		assert.equal((await saidOf(signIn(entrance, 'ines', PASSWORD, from('192.0.2.66')))).status, 429);
		assert.ok((await cookiesOf(entrance, 'Ines', PASSWORD, from('192.0.2.1'))).length);
	});
	it('a hundred wrong passwords from ten addresses are stopped, and counted in the database', async () => {
		const statuses: number[] = [];
		for (let i = 0; i < 100; i++)
			statuses.push(
				(await saidOf(signIn(entrance, 'oona', `guess number ${i} of many`, from(`198.51.100.${i % 10}`)))).status
			);
		assert.equal(statuses.filter((status) => status === 401).length, 25);
		assert.equal(statuses.filter((status) => status === 429).length, 75);
		assert.equal(
			(await saidOf(signIn(entrance, 'OONA', PASSWORD, from('203.0.113.5')))).status,
			429,
			'from elsewhere, too'
		);
		assert.ok((await cookiesOf(entrance, 'ines', PASSWORD, from('203.0.113.5'))).length, 'nobody else is kept out');
	});
	it('a session that is ended elsewhere is over, and the others go on', async () => {
		const [here, there] = [
			await cookiesOf(entrance, 'ines', PASSWORD, from('192.0.2.1')),
			await cookiesOf(entrance, 'ines', PASSWORD, from('192.0.2.2'))
		];
		const ines = (await asks(cookie(here)))!;
		const sessions = await listSessions(door, ines.person, ines.session);
		const [one] = sessions.filter(({ isThis }) => isThis);
		await assert.rejects(endSession(door, keeper.person, one!.id), /ended already/, 'not of somebody else');
		await endSession(door, ines.person, one!.id);
		assert.equal(await asks(cookie(here)), undefined);
		assert.ok(await asks(cookie(there)));
	});
	it('a new password wants the one before, and ends every other session', async () => {
		const cookies = await cookiesOf(entrance, 'ines', PASSWORD, from('192.0.2.1'));
		const ines = (await asks(cookie(cookies)))!;
		const wanted = { username: 'ines', password: 'five mosses on a stone' };
		assert.equal(
			(await saidOf(changePassword(entrance, ines, { ...wanted, old: 'no' }, from('192.0.2.1')))).body.where,
			'/old'
		);
		assert.equal(
			(
				await saidOf(
					changePassword(entrance, ines, { ...wanted, password: 'aaaaaaaaaaaaaa', old: PASSWORD }, from('192.0.2.1'))
				)
			).body.where,
			'/password'
		);
		const next = await changePassword(entrance, ines, { ...wanted, old: PASSWORD }, from('192.0.2.1'));
		assert.equal(await asks(cookie(cookies)), undefined);
		assert.ok(await asks(cookie(next)));
		assert.equal((await saidOf(signIn(entrance, 'ines', PASSWORD, from('192.0.2.1')))).status, 401);
		const token = await passwordLink(entrance, keeper, ines.person);
		const again = await passwordLink(entrance, keeper, ines.person);
		assert.equal((await saidOf(openLink(door, token))).status, 410, 'the link before leads nowhere');
		await enterBy(entrance, again, { username: 'ines', password: PASSWORD }, undefined, new Headers());
		assert.equal(await asks(cookie(next)), undefined);
		assert.equal((await saidOf(passwordLink(entrance, keeper, crypto.randomUUID()))).status, 404);
	});
	it('a second factor holds once a code was said; then nobody comes in without one, by whatever way', async () => {
		const signed = async () => {
			const answer = await signIn(entrance, 'ines', PASSWORD, from('192.0.2.1'));
			return { ...answer, headers: new Headers(cookie(answer.cookies)) };
		};
		const first = await signed();
		const ines = (await asks(cookie(first.cookies)))!;
		assert.equal((await saidOf(beginSecond(entrance, ines, 'another', first.headers))).body.where, '/password');
		const { secret, spares, picture } = await beginSecond(entrance, ines, PASSWORD, first.headers);
		assert.match(picture, /^<svg/);
		assert.equal((await signed()).needsCode, false, 'not before a code was said');
		assert.equal((await saidOf(confirmSecond(entrance, '000000', first.headers))).body.where, '/code');
		const kept = await confirmSecond(entrance, codeAt(secret), first.headers);
		assert.ok(await asks(cookie(kept)));

		const half = await signed();
		assert.equal(half.needsCode, true);
		assert.equal(await asks(cookie(half.cookies)), undefined, 'the password alone is not enough');
		assert.equal((await saidOf(saySecond(entrance, '123456', half.headers))).body.where, '/code');
		const whole = await saySecond(entrance, codeAt(secret), half.headers);
		assert.equal((await asks(cookie(whole)))!.person, ines.person);
		const spared = await saySecond(entrance, spares[0]!, (await signed()).headers);
		assert.ok(await asks(cookie(spared)));
		assert.ok(await saidOf(saySecond(entrance, spares[0]!, (await signed()).headers)), 'a spare leads in once');
		const { rows } = await sql<{ all: string }>`select string_agg(s::text, ' ') as all from second_factors s`.execute(
			door
		);
		assert.ok(![secret, ...spares].some((word) => rows[0]!.all.includes(word)), 'kept so that nobody reads them');

		const link = await passwordLink(entrance, keeper, ines.person);
		assert.deepEqual(
			await enterBy(entrance, link, { username: 'ines', password: PASSWORD }, undefined, new Headers()),
			[],
			'a link for a password does not lead around it'
		);
		assert.equal((await signed()).needsCode, true);
		await takeSecondFrom(entrance, ines.person);
		assert.equal((await signed()).needsCode, false);
	});
	it('a keeper does not come into another house by the password of somebody who belongs to it', async () => {
		const ines = (await listMembers(door, keeper.house)).members.find(({ name }) => name === 'Ines')!;
		const other = await beginHouse(door, 'Fern valley', ines.id);
		assert.equal((await saidOf(passwordLink(entrance, keeper, ines.id))).status, 403);
		await join(door, other, keeper.person, 'keeper');
		assert.ok(await passwordLink(entrance, keeper, ines.id), 'unless that is theirs to keep, too');
		await leave(door, other, ines.id, keeper.person);
	});
	it('the last keeper stays, also where two make each other readers at once', async () => {
		const { members } = await listMembers(door, keeper.house);
		const ines = members.find(({ name }) => name === 'Ines')!;
		assert.equal((await saidOf(leave(door, keeper.house, keeper.person, keeper.person))).status, 409);
		assert.equal((await saidOf(setRole(door, keeper.house, keeper.person, 'reader', keeper.person))).status, 409);
		await setRole(door, keeper.house, ines.id, 'keeper', keeper.person);
		await Promise.allSettled([
			setRole(door, keeper.house, ines.id, 'reader', keeper.person),
			setRole(door, keeper.house, keeper.person, 'reader', ines.id)
		]);
		const left = (await listMembers(door, keeper.house)).members.filter(({ role }) => role === 'keeper');
		assert.equal(left.length, 1);
		const [last] = left;
		for (const id of [keeper.person, ines.id]) await setRole(door, keeper.house, id, 'keeper', last!.id);
		await leave(door, keeper.house, ines.id, keeper.person);
		assert.deepEqual(await housesOf(door, ines.id), []);
		assert.equal((await saidOf(setRole(door, keeper.house, ines.id, 'author', keeper.person))).status, 404);
	});
	it('the log says what was done, by whom, and is asked by person and day', async () => {
		const log = await listLog(db);
		assert.ok(log.some(({ words, by }) => by === 'Keeper' && /Ines was invited as author/.test(words)));
		assert.ok(log.some(({ kind }) => kind === 'sign-in'));
		assert.ok(log.every(({ words }) => !words.includes(PASSWORD)));
		const theirs = await listLog(db, { person: keeper.person });
		assert.ok(theirs.length && theirs.length < log.length);
		assert.deepEqual(await listLog(db, { day: '2001-01-01' }), []);
		assert.deepEqual(
			(await listLog(db, { most: 2 })).map(({ id }) => id),
			log.slice(0, 2).map(({ id }) => id)
		);
	});
	it('roles are one order: whoever may something, may it in every role after', () => {
		const role = fc.constantFrom<Role>(...ROLES);
		fc.assert(
			fc.property(role, role, role, (one, least, more) => {
				if (may(one, least) && may(more, one)) assert.ok(may(more, least));
				assert.ok(may(one, least) || may(least, one));
			}),
			{ numRuns: runs(200) }
		);
	});
});
