import { InputError } from '$lib/core/errors.ts';
import { answer } from '$lib/server/http/answers.ts';
import { known } from '$lib/server/http/signed.ts';
import { hub } from '$lib/server/live/shared.ts';
import { entrance } from '$lib/server/people/shared.ts';
import { whoAsks } from '$lib/server/people/who.ts';
import { isThing } from '$lib/workbench/live.ts';
import type { RequestHandler } from './$types.js';

/** Who else is on what a window shows, and what changes, as long as it is open: server-sent events. */
export const GET: RequestHandler = ({ locals, request, url }) =>
	answer(async () => {
		const who = known(locals);
		const thing = url.searchParams.get('on') ?? '';
		if (!isThing(thing)) throw new InputError('request', `“${thing}” is nothing that people look at.`);
		const { headers } = request;
		const stream = await hub().open(who, thing, async () => {
			const { door, auth } = await entrance();
			return (await whoAsks(door, auth, headers, process.env))?.house === who.house;
		});
		// What compresses answers is not to hold events back.
		return new Response(stream, {
			headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store, no-transform' }
		});
	});
