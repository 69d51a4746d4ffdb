import { connectDoor } from './lib/server/people/door.ts';
import { makeLink } from './lib/server/people/links.ts';
import { isClosed } from './lib/server/people/who.ts';

/**
 * npm run link: a link that lets the first keeper of the installation in, once, for a day. With `--if-closed` nothing, as
 * long as nobody has to sign in.
 */
const door = connectDoor(process.env.DATABASE_URL!);
const origin = process.argv.find((word) => /^https?:/.test(word)) ?? process.env.ORIGIN ?? 'http://127.0.0.1:4700';
if (!process.argv.includes('--if-closed') || (await isClosed(door))) {
	const keeper = await door
		.selectFrom('members')
		.select('personId')
		.where('role', '=', 'keeper')
		.where('leftAt', 'is', null)
		.orderBy('since')
		.executeTakeFirstOrThrow();
	const token = await makeLink(door, { kind: 'entry', person: keeper.personId });
	console.log(`${origin}/enter/${token}`);
}
await door.destroy();
process.exit(0);
