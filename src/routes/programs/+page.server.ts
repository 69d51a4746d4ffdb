import { openApi } from '$lib/server/api/openapi.ts';
import type { PageServerLoad } from './$types.js';

/** One thing that programs may ask, as the description tells it. */
interface Described {
	readonly operationId: string;
	readonly tags: readonly string[];
	readonly summary: string;
	readonly description: string;
	readonly parameters: readonly {
		readonly name: string;
		readonly in: 'path' | 'query' | 'header';
		readonly required: boolean;
		readonly description: string;
		readonly schema: { readonly enum?: readonly string[] };
	}[];
	readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: object }>> };
	readonly responses: Readonly<Record<string, { readonly description: string; readonly content?: object }>>;
}

export const load: PageServerLoad = () => {
	const { paths, components } = openApi();
	const operations = Object.entries(paths).flatMap(([path, methods]) =>
		Object.entries(methods).map(([method, described]) => ({
			path,
			method: method.toUpperCase(),
			...(described as Described)
		}))
	);
	return { operations, schemas: components.schemas as Record<string, object> };
};
