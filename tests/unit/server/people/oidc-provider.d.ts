declare module 'oidc-provider' {
	import type { IncomingMessage, ServerResponse } from 'node:http';
	/** A provider of OpenID Connect on loopback, for tests. */
	export default class Provider {
		constructor(issuer: string, configuration: Record<string, unknown>);
		callback(): (request: IncomingMessage, response: ServerResponse) => void;
		interactionDetails(
			request: IncomingMessage,
			response: ServerResponse
		): Promise<{ prompt: { name: string }; params: Record<string, string>; session?: { accountId: string } }>;
		interactionFinished(request: IncomingMessage, response: ServerResponse, result: unknown): Promise<void>;
		Grant: new (of: { accountId: string; clientId: string }) => {
			addOIDCScope(scope: string): void;
			save(): Promise<string>;
		};
	}
}
