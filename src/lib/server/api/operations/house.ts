import { db } from '../../database.ts';
import { loadHouse } from '../../house/house.ts';
import type { Operation } from '../operation.ts';

/** The house, and who asks. */
export const HOUSE_OPERATIONS: readonly Operation[] = [
	{
		method: 'GET',
		path: '/me',
		id: 'me',
		of: 'House',
		summary: 'Who asks, as what, and in which house',
		needs: 'reader',
		gives: { status: 200, schema: 'Me' },
		run: async ({ who: { id, name, role, house } }) => ({
			body: { id, name, role, house: { id: house, name: (await loadHouse(db())).name } }
		})
	},
	{
		method: 'GET',
		path: '/house',
		id: 'house',
		of: 'House',
		summary: 'Inks, type roles and locale of the house',
		needs: 'reader',
		gives: { status: 200, schema: 'House' },
		run: async () => {
			const { name, inks, typeRoles, locale, secondEyes } = await loadHouse(db());
			return { body: { name, inks, typeRoles, locale, secondEyes } };
		}
	}
];
