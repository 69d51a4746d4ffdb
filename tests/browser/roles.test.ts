import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { NEEDS } from '../../src/lib/server/people/needs.ts';
import { may, ROLES, type Role } from '../../src/lib/workbench/roles.ts';
import { routes, textOf, type Route } from './routes.ts';
import { Application } from './support.ts';

/** Every route, asked by every role of its house and of another, and by nobody. */
describe('who may do what', () => {
	let application: Application;
	/** Cookies by house and role. */
	const cookies = { own: {}, other: {} } as Record<'own' | 'other', Record<Role, string>>;
	/** What there is in the house, by the piece of a path that names it. */
	let ids: Record<string, string>;
	before(async () => {
		application = await Application.start('demo', {});
		const other = await application.anotherHouse('Fern valley');
		for (const role of ROLES) {
			cookies.own[role] = await application.signedIn(role);
			cookies.other[role] = await application.signedIn(role, other);
		}
		const list = async (path: string) => (await (await ask('GET', path, cookies.own.keeper)).json()) as unknown;
		const { documents } = (await list('/api/documents')) as { documents: { id: string; kind: string }[] };
		const [style] = (await list('/api/styles')) as { id: string }[];
		const [starter] = (await list('/api/starters')) as { id: string }[];
		ids = {
			documents: documents.find(({ kind }) => kind === 'docx')!.id,
			drawings: documents.find(({ kind }) => kind === 'svg')!.id,
			stylebook: style!.id,
			styles: style!.id,
			starters: starter!.id
		};
	});
	after(() => application.stop());

	const ask = (method: string, path: string, cookie?: string, body: string | undefined = '{}') =>
		fetch(application.origin + path, {
			method,
			headers: {
				Origin: application.origin,
				'Content-Type': 'application/json',
				...(cookie && { Cookie: cookie })
			},
			...(method !== 'GET' && { body }),
			redirect: 'manual'
		});
	const NOWHERE = '00000000-0000-4000-8000-000000000000';
	/** A path with what is there in the place of what changes. */
	const there = ({ path }: Route) => {
		const of = path.split('/').filter((piece) => piece && piece !== 'api')[0] ?? '';
		return path
			.replace('[name].json', 'style.json')
			.replace('[id]', ids[of] ?? NOWHERE)
			.replace(/\[(index|number)\]/g, '0')
			.replace(/\[\w+\]/g, 'nothing');
	};
	const needOf = ({ method, path }: Route) => NEEDS[path]?.[method];

	it('every route and page is in the table, and nothing else', () => {
		const said = Object.entries(NEEDS).flatMap(([path, methods]) => Object.keys(methods).map((m) => `${m} ${path}`));
		assert.deepEqual(
			said.sort(),
			routes()
				.map(({ method, path }) => `${method} ${path}`)
				.sort()
		);
	});
	it('nobody who is not signed in gets anything', async () => {
		for (const route of routes()) {
			const need = needOf(route);
			const answer = await ask(route.method, there(route));
			const text = await textOf(answer);
			if (need === 'nothing' || need === 'nobody') assert.ok(![303, 403].includes(answer.status), route.path);
			else if (route.isPage) {
				assert.equal(answer.status, 303, route.path);
				assert.match(answer.headers.get('Location')!, /^\/sign-in\?to=%2F/);
			} else assert.equal(answer.status, 401, `${route.method} ${route.path}`);
			assert.ok(!/Thornmere|Season report/.test(text), route.path);
		}
	});
	it('each role may what its word says, and is told why not of the rest', async () => {
		for (const route of routes())
			for (const role of ROLES) {
				const need = needOf(route)!;
				// What would end this session, or take out what the next one asks for, is asked of by those who may not.
				const isSafe = route.method === 'GET' || route.kind || route.isFile;
				const isMay = need === 'nothing' || need === 'nobody' || may(role, need);
				if (isMay && !isSafe) continue;
				const answer = await ask(route.method, there(route), cookies.own[role]);
				const what = `${route.method} ${route.path} by a ${role}: ${answer.status}`;
				if (!isMay) {
					assert.equal(answer.status, 403, what);
					const text = await textOf(answer);
					assert.match(text, new RegExp(`in this house you are an? ${role}`), what);
				} else assert.ok(answer.status !== 401 && answer.status !== 403 && answer.status < 500, what);
			}
	});
	it('what is in another house is not there, for any role, and changes by nothing', async () => {
		const before = await (await ask('GET', '/api/documents', cookies.own.keeper)).text();
		const told: string[] = [];
		for (const route of routes()) {
			const need = needOf(route)!;
			if (need === 'nothing' || need === 'nobody') continue;
			const path = there(route);
			for (const role of ROLES.filter((one) => may(one, need))) {
				if (route.path.startsWith('/api/session') || route.path === '/api/houses') continue;
				const answer = await ask(route.method, path, cookies.other[role]);
				const text = await textOf(answer);
				const what = `${route.method} ${route.path} by a ${role} of another house: ${answer.status}`;
				assert.ok(answer.status < 500, what);
				assert.ok(!/Thornmere|Season report|Path lighting/.test(text), what);
				const nowhere = Object.values(ids).reduce((way, id) => way.replace(id, NOWHERE), path);
				if (nowhere === path || route.isPage) continue;
				// Whether an id is that of another house or of nothing at all is not to be told.
				const other = await ask(route.method, nowhere, cookies.other[role]);
				const said = Object.values(ids).reduce((words, id) => words.replaceAll(id, NOWHERE), text);
				if (other.status !== answer.status || (await textOf(other)) !== said) told.push(what);
			}
		}
		assert.deepEqual(told, []);
		assert.equal(await (await ask('GET', '/api/documents', cookies.own.keeper)).text(), before);
	});
	it('a role that was taken away is gone at the next request, and so is whoever left', async () => {
		const cookie = await application.signedIn('designer');
		const { id } = await application.personOf(cookie);
		assert.equal((await ask('PUT', `/api/house/people/${id}`, cookies.own.keeper, '{"role":"reader"}')).status, 200);
		assert.equal((await ask('POST', '/api/styles', cookie)).status, 403);
		assert.equal((await ask('GET', '/api/styles', cookie)).status, 200);
		assert.equal((await ask('DELETE', `/api/house/people/${id}`, cookies.own.keeper)).status, 200);
		assert.equal((await ask('GET', '/api/styles', cookie)).status, 401);
	});
});
