import assert from 'node:assert/strict';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { after, before, describe, it } from 'node:test';
import Provider from 'oidc-provider';
import { makeAuth, providerOf, PROVIDER } from '../../../../src/lib/server/people/auth.ts';
import { connectDoor, type Door } from '../../../../src/lib/server/people/door.ts';
import { letIn, towardsProvider, type Entrance } from '../../../../src/lib/server/people/entrance.ts';
import { signsInBy } from '../../../../src/lib/server/people/sessions.ts';
import { whoAsks } from '../../../../src/lib/server/people/who.ts';
import { ownDatabase } from '../../../database.ts';

const ORIGIN = 'http://127.0.0.1:4799';
const CLIENT = { client: 'heptarch', secret: 'a secret between the two' };

/** Signing in at a provider of OpenID Connect that runs on loopback: the whole way, as a browser goes it. */
describe('a provider', () => {
	let server: Server;
	let issuer: string;
	let door: Door;
	let entrance: Entrance;
	let keeper: string;
	/** Who is signed in at the provider. */
	let there = 'tansy';
	before(async () => {
		const own = await ownDatabase('empty');
		await own.db.destroy();
		door = connectDoor(own.url);
		keeper = (await door.selectFrom('people').select('id').executeTakeFirstOrThrow()).id;
		server = createServer();
		await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
		issuer = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
		const provider = new Provider(issuer, {
			clients: [
				{
					client_id: CLIENT.client,
					client_secret: CLIENT.secret,
					redirect_uris: [`${ORIGIN}/api/auth/callback/${PROVIDER}`],
					grant_types: ['authorization_code'],
					response_types: ['code']
				}
			],
			cookies: { keys: ['cookies of tests'] },
			features: { devInteractions: { enabled: false } },
			interactions: { url: (_: unknown, { uid }: { uid: string }) => `/ask/${uid}` },
			findAccount: (_: unknown, id: string) => ({
				accountId: id,
				claims: () => ({ sub: id, name: id, email: `${id}@thornmere.example`, email_verified: true })
			}),
			claims: { openid: ['sub'], email: ['email', 'email_verified'], profile: ['name'] }
		});
		const answers = provider.callback();
		server.on('request', (request, response) => {
			if (!request.url!.startsWith('/ask/')) return answers(request, response);
			// Nobody has to be asked: whoever is there signs in, and agrees.
			void (async () => {
				const { params } = await provider.interactionDetails(request, response);
				const grant = new provider.Grant({ accountId: there, clientId: params.client_id! });
				grant.addOIDCScope(params.scope!);
				await provider.interactionFinished(request, response, {
					login: { accountId: there },
					consent: { grantId: await grant.save() }
				});
			})();
		});
		entrance = {
			door,
			auth: makeAuth(door, 'a secret of tests that is long enough for it', ORIGIN, {
				issuer,
				...CLIENT,
				name: 'The garden'
			})
		};
	});
	after(async () => {
		server.closeAllConnections();
		server.close();
		await door.destroy();
	});

	/** Goes where it is sent, from the provider's door back to ours; with the cookies of each. */
	async function go(url: string, ours: readonly string[]): Promise<{ to: string; cookies: string[] }> {
		const theirs = new Map<string, string>();
		for (let hops = 0; hops < 12; hops++) {
			const at = new URL(url);
			if (at.origin === ORIGIN) {
				const answer = await entrance.auth.handler(
					new Request(url, { headers: { cookie: ours.map((one) => one.split(';')[0]!).join('; ') } })
				);
				return { to: answer.headers.get('location')!, cookies: answer.headers.getSetCookie() };
			}
			const answer = await fetch(url, {
				redirect: 'manual',
				headers: { cookie: [...theirs].map(([name, value]) => `${name}=${value}`).join('; ') }
			});
			for (const set of answer.headers.getSetCookie()) {
				const [name, value] = set.split(';')[0]!.split(/=(.*)/s) as [string, string];
				if (value) theirs.set(name, value);
				else theirs.delete(name);
			}
			url = new URL(answer.headers.get('location')!, url).href;
		}
		return assert.fail('it goes round and round');
	}
	const cookie = (set: readonly string[]) => ({ cookie: set.map((one) => one.split(';')[0]!).join('; ') });
	const whoIs = (cookies: readonly string[]) =>
		whoAsks(door, entrance.auth, new Headers({ host: 'elsewhere.example', ...cookie(cookies) }), {});

	it('lets nobody in whom this installation does not know', async () => {
		const { url, cookies } = await towardsProvider(entrance, '/documents', new Headers(), false);
		assert.ok(url.startsWith(issuer));
		assert.match(url, /code_challenge_method=S256/);
		const back = await go(url, cookies);
		assert.match(back.to, /\/sign-in\?refused/);
		assert.equal((await door.selectFrom('people').selectAll().execute()).length, 1, 'nobody was made');
	});
	it('lets somebody in who said, signed in here, who they are there', async () => {
		const here = await letIn(entrance, keeper, new Headers());
		const own = await towardsProvider(entrance, '/me', new Headers(cookie(here)), true);
		assert.match((await go(own.url, [...here, ...own.cookies])).to, /\/me$/);
		assert.equal((await signsInBy(door, keeper)).hasProvider, true);
		const { url, cookies } = await towardsProvider(entrance, '/documents', new Headers(), false);
		const back = await go(url, cookies);
		assert.match(back.to, /\/documents$/);
		assert.equal((await whoIs(back.cookies))!.person, keeper);
	});
	it('is not led around: another person there, an answer to another question, a code twice', async () => {
		there = 'sorrel';
		const other = await towardsProvider(entrance, '/documents', new Headers(), false);
		assert.match((await go(other.url, other.cookies)).to, /\/sign-in\?refused/);
		there = 'tansy';
		const { url, cookies } = await towardsProvider(entrance, '/documents', new Headers(), false);
		assert.equal(
			(await go(url, [])).cookies.some((one) => /session_token=[^;]/.test(one)),
			false,
			'without its cookie'
		);
		assert.equal(await whoIs(cookies), undefined);
	});
	it('that does not answer, or is set by half, says so', async () => {
		const away = makeAuth(door, 'a secret of tests that is long enough for it', ORIGIN, {
			issuer: 'http://127.0.0.1:1',
			...CLIENT,
			name: 'Nowhere'
		});
		await assert.rejects(towardsProvider({ door, auth: away }, '/', new Headers(), false), /does not answer/);
		assert.throws(() => providerOf({ HEPTARCH_OIDC_ISSUER: issuer }), /HEPTARCH_OIDC_CLIENT/);
		assert.equal(providerOf({}), undefined);
	});
});
