import { InputError } from '../../../core/errors.ts';
import { inkOf, typeRoleOf } from '../../../core/house.ts';
import { same } from '../../../core/merge.ts';
import type { Style } from '../../../core/style/types.ts';
import { checkStyle } from '../../../core/style/validate.ts';
import { db } from '../../database.ts';
import { loadHouse } from '../../house/house.ts';
import { readId, readRequest } from '../../http/requests.ts';
import { frozenDraft, listEditions, publishEdition } from '../../styles/editions.ts';
import { propose } from '../../styles/proposals.ts';
import { addStyleStep } from '../../styles/steps.ts';
import { assertNameFree, importStyle, listStyles, loadStyle, STYLES, type StyleRecord } from '../../styles/styles.ts';
import type { Answer, Call, Operation } from '../operation.ts';
import { after } from './parts.ts';

const styleId = ({ params }: Call) => readId(params.style!, 'style');

const styleOf = ({ id, version, definition, edition, unpublished, aside, updatedAt, worn }: StyleRecord) => ({
	id,
	name: definition.name,
	category: definition.category ?? null,
	description: definition.description ?? null,
	version,
	edition,
	unpublished,
	aside,
	updatedAt,
	worn
});

const STYLES_ON_PAGE = 100;
/** A page of the styles, by name, after the one with an id. */
async function stylesPage({ url }: Call): Promise<Answer> {
	const all = await listStyles(db());
	const from = url.searchParams.get('after');
	const at = from === null ? 0 : all.findIndex(({ id }) => id === from) + 1;
	if (from !== null && at === 0)
		throw new InputError('request', '“after” in the address is to be what the page before gave as “next”.');
	const shown = all.slice(at, at + STYLES_ON_PAGE);
	return {
		body: { items: shown.map(styleOf), next: at + shown.length < all.length ? shown.at(-1)!.id : null }
	};
}

/**
 * Makes a style's draft what a file says. Its base is named by name; what of inks and type roles is that of the house stays the
 * house's, so that a file that was taken and is put back changes nothing.
 */
async function putStyle(call: Call): Promise<Answer> {
	const id = styleId(call);
	const { bases: _, ...file } = checkStyle(await readRequest(call.request, 'styleFile'));
	return db()
		.transaction()
		.execute(async (trx) => {
			await STYLES.lock(trx, id, call.seen);
			const { definition } = await loadStyle(trx, id);
			const house = await loadHouse(trx);
			await assertNameFree(trx, file.name, id);
			const base = file.basedOn
				? (await listStyles(trx)).find((one) => one.definition.name.toLowerCase() === file.basedOn!.toLowerCase())
				: undefined;
			if (file.basedOn && !base)
				throw new InputError('style', `The house has no style “${file.basedOn}” to build on.`, '/basedOn');
			const own = <T>(
				said: Readonly<Record<string, T>> = {},
				had: object = {},
				ours: (name: string) => T | undefined
			) =>
				Object.fromEntries(
					Object.entries(said).filter(([name, value]) => Object.hasOwn(had, name) || !same(value, ours(name)))
				);
			const inks = own<string>(file.inks, definition.inks, (name) => inkOf(house, name));
			const typeRoles = own(file.typeRoles, definition.typeRoles, (name) => typeRoleOf(house, name));
			const { inks: _inks, typeRoles: _roles, ...rest } = file;
			const next: Style = {
				...rest,
				basedOn: base?.id ?? null,
				...(Object.keys(inks).length && { inks }),
				...(Object.keys(typeRoles).length && { typeRoles })
			};
			await addStyleStep(trx, id, `put by ${call.who.name}`, next);
			const { version } = await loadStyle(trx, id);
			return { body: styleOf(await loadStyle(trx, id)), version };
		});
}

/** Styles and their editions. */
export const STYLES_OPERATIONS: readonly Operation[] = [
	{
		method: 'GET',
		path: '/styles',
		id: 'listStyles',
		of: 'Styles',
		summary: 'The styles of the house, by name',
		needs: 'reader',
		query: [after],
		gives: { status: 200, schema: 'Styles' },
		run: stylesPage
	},
	{
		method: 'POST',
		path: '/styles',
		id: 'addStyle',
		of: 'Styles',
		summary: 'Take a style file in, with its bases',
		needs: 'designer',
		takes: 'styleFile',
		makes: true,
		hasVersion: true,
		gives: { status: 201, schema: 'Style' },
		run: async ({ request }) => {
			const id = await importStyle(db(), await readRequest(request, 'styleFile'));
			const style = await loadStyle(db(), id);
			return { body: styleOf(style), version: style.version, location: `/styles/${id}` };
		}
	},
	{
		method: 'GET',
		path: '/styles/{style}',
		id: 'getStyle',
		of: 'Styles',
		summary: 'The draft of a style as a file that needs nothing else',
		needs: 'reader',
		hasVersion: true,
		gives: { status: 200, schema: 'StyleFile' },
		run: async (call) => {
			const { id, version } = await loadStyle(db(), styleId(call));
			return { body: await frozenDraft(db(), id), version };
		}
	},
	{
		method: 'PUT',
		path: '/styles/{style}',
		id: 'putStyle',
		of: 'Styles',
		summary: 'Make the draft of a style what a file says',
		needs: 'designer',
		takes: 'styleFile',
		changes: true,
		hasVersion: true,
		gives: { status: 200, schema: 'Style' },
		run: putStyle
	},
	{
		method: 'GET',
		path: '/styles/{style}/editions',
		id: 'listEditions',
		of: 'Styles',
		summary: 'The editions of a style, the newest first',
		needs: 'reader',
		gives: { status: 200, schema: 'Editions' },
		run: async (call) => {
			const { id } = await loadStyle(db(), styleId(call));
			const items = (await listEditions(db(), id)).map(({ frozen: _, ...edition }) => edition);
			return { body: { items } };
		}
	},
	{
		method: 'POST',
		path: '/styles/{style}/editions',
		id: 'publishEdition',
		of: 'Styles',
		summary: 'Publish the draft as the next edition',
		more: 'A house that wants a second pair of eyes refuses it (403, second-eyes): propose it then.',
		needs: 'designer',
		takes: 'note',
		makes: true,
		changes: true,
		gives: { status: 201, schema: 'Published' },
		run: async (call) => {
			const { id, version } = await loadStyle(db(), styleId(call));
			const { note = '' } = await readRequest(call.request, 'note');
			return { body: { number: await publishEdition(db(), id, call.seen ?? version, note) } };
		}
	},
	{
		method: 'POST',
		path: '/styles/{style}/proposals',
		id: 'proposeEdition',
		of: 'Styles',
		summary: 'Propose the draft as the next edition, for somebody else to publish',
		needs: 'designer',
		takes: 'note',
		makes: true,
		changes: true,
		gives: { status: 201, schema: 'Proposed' },
		run: async (call) => {
			const { id, version } = await loadStyle(db(), styleId(call));
			const { note = '' } = await readRequest(call.request, 'note');
			return { body: { id: await propose(db(), id, call.seen ?? version, note) } };
		}
	}
];
