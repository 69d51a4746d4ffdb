import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { gateOf, passes } from '../../../../src/lib/server/front/gate.ts';
import { isLight } from '../../../../src/lib/server/front/light.ts';

const here = gateOf({});
const house = gateOf({ ORIGIN: 'https://tables.thornmere.example', HEPTARCH_HOSTS: 'tables.local, 10.0.0.7' });

describe('the gate', () => {
	it('lets in who asks by a name on the list', () => {
		for (const host of ['127.0.0.1:4700', 'localhost', 'LOCALHOST:80', '[::1]:4700'])
			assert.equal(passes(here, 'GET', { host }), undefined, host);
		for (const host of ['tables.thornmere.example', 'tables.local:4700', '10.0.0.7'])
			assert.equal(passes(house, 'GET', { host }), undefined, host);
	});

	it('refuses every other name, reading too', () => {
		for (const host of [undefined, '', 'elsewhere.example', 'localhost.elsewhere.example', '127.0.0.1.example:4700'])
			assert.equal(passes(here, 'GET', { host })?.status, 421, String(host));
		assert.equal(passes(here, 'GET', { host: 'tables.local' })?.status, 421);
	});

	it('refuses what a page of another origin writes', () => {
		const host = '127.0.0.1:4700';
		for (const method of ['POST', 'PUT', 'DELETE', 'PATCH']) {
			assert.equal(passes(here, method, { host }), undefined, 'a program');
			assert.equal(
				passes(here, method, { host, origin: `http://${host}`, 'sec-fetch-site': 'same-origin' }),
				undefined
			);
			for (const origin of ['null', 'http://elsewhere.example', 'http://127.0.0.1:4701', 'http://localhost:4700'])
				assert.equal(passes(here, method, { host, origin })?.status, 403, origin);
			for (const site of ['cross-site', 'same-site'])
				assert.equal(passes(here, method, { host, 'sec-fetch-site': site })?.status, 403, site);
		}
	});

	it('knows where people reach it behind a proxy', () => {
		const asked = { host: '10.0.0.7', origin: 'https://tables.thornmere.example' };
		assert.equal(passes(house, 'POST', asked), undefined);
		assert.equal(passes(here, 'POST', { ...asked, host: 'localhost' })?.status, 403);
	});
});

describe('what the web process answers itself', () => {
	it('are lists and what takes a few queries', () => {
		for (const path of [
			'/documents',
			'/documents/__data.json',
			'/api/documents',
			'/house',
			'/_app/x.js',
			'/health/live'
		])
			assert.ok(isLight('GET', path), path);
		assert.ok(isLight('HEAD', '/documents'));
		assert.ok(isLight('PUT', '/api/styles/an-id'));
	});

	it('is nothing that reads or writes a file, and no route that nobody thought of', () => {
		for (const path of [
			'/documents/an-id',
			'/documents/an-id/__data.json',
			'/documents/an-id/bench',
			'/api/documents/an-id/file',
			'/anything'
		])
			assert.ok(!isLight('GET', path), path);
		assert.ok(!isLight('POST', '/api/documents'));
		assert.ok(!isLight('DELETE', '/api/styles/an-id'));
	});
});
