import { db } from '../../database.ts';
import { readId, readRequest } from '../../http/requests.ts';
import { entrance } from '../../people/shared.ts';
import { addWebhook, allowedHosts, listWebhooks, removeWebhook } from '../../programs/webhooks.ts';
import type { Operation } from '../operation.ts';

async function installationSecret(): Promise<string> {
	const { door } = await entrance();
	return (await door.selectFrom('installation').select('secret').executeTakeFirstOrThrow()).secret;
}

/** Addresses that are told of events. */
export const WEBHOOKS_OPERATIONS: readonly Operation[] = [
	{
		method: 'GET',
		path: '/webhooks',
		id: 'listWebhooks',
		of: 'Webhooks',
		summary: 'Addresses that are told of events',
		needs: 'keeper',
		gives: { status: 200, schema: 'Webhooks' },
		run: async () => ({ body: { items: await listWebhooks(db()) } })
	},
	{
		method: 'POST',
		path: '/webhooks',
		id: 'addWebhook',
		of: 'Webhooks',
		summary: 'Tell an address of events from now on',
		more: 'Told as Standard Webhooks 1.0.0 has it, signed with the secret that is answered. One of this machine or of a private network is refused.',
		needs: 'keeper',
		takes: 'newWebhook',
		makes: true,
		gives: { status: 201, schema: 'NewWebhook' },
		run: async ({ request }) => ({
			body: await addWebhook(
				db(),
				await readRequest(request, 'newWebhook'),
				await installationSecret(),
				allowedHosts(process.env)
			)
		})
	},
	{
		method: 'DELETE',
		path: '/webhooks/{webhook}',
		id: 'removeWebhook',
		of: 'Webhooks',
		summary: 'Tell an address of nothing any more',
		needs: 'keeper',
		gives: { status: 204 },
		run: async ({ params }) => {
			await removeWebhook(db(), readId(params.webhook!, 'webhook'));
			return {};
		}
	}
];
