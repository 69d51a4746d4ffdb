import { EVENTS, type EventName } from '../../workbench/events.ts';
import { ONE, ROLE_WORDS } from '../../workbench/roles.ts';
import { once } from '../../core/once.ts';
import { SCHEMAS } from '../http/requests.ts';
import { ANSWERS } from './answers.ts';
import type { Operation, Parameter } from './operation.ts';
import { OPERATIONS } from './operations.ts';

const ref = (name: string) => ({ $ref: `#/components/schemas/${name}` });
/** What requests take is the very schema that looks through them. */
const takenName = (kind: string) =>
	kind === 'styleFile' ? 'StyleFile' : `${kind[0]!.toUpperCase()}${kind.slice(1)}Request`;

const parameter = ({ name, schema, description, required = false }: Parameter, where: 'query' | 'path' | 'header') => ({
	name,
	in: where,
	required,
	description,
	schema
});
const version = { ETag: { description: 'the version, for If-Match', schema: { type: 'string' } } };
const problem = (description: string) => ({
	description,
	content: { 'application/problem+json': { schema: ref('Problem') } }
});

/** A JSON Schema with definitions of its own, as schemas of the description: its references lead there. */
function embedded(name: string, schema: object): Record<string, object> {
	const { $schema: _schema, $id: _id, $defs = {}, ...own } = schema as Record<string, unknown>;
	const moved = (part: unknown) =>
		JSON.parse(
			JSON.stringify(part, (key, value: unknown) =>
				key === '$ref' && typeof value === 'string'
					? value.replace(/^#\/\$defs\//, `#/components/schemas/${name}.`).replace(/^#$/, ref(name).$ref)
					: value
			)
		) as object;
	return {
		[name]: moved(own),
		...Object.fromEntries(Object.entries($defs as object).map(([def, part]) => [`${name}.${def}`, moved(part)]))
	};
}

function described({
	id,
	of,
	summary,
	more,
	needs,
	path,
	query = [],
	takes,
	gives,
	makes,
	changes,
	hasVersion
}: Operation) {
	const names = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name!);
	return {
		operationId: id,
		tags: [of],
		summary,
		description: [more, `For ${ONE[needs]} at least.`].filter(Boolean).join(' '),
		parameters: [
			...names.map((name) =>
				parameter(
					{
						name,
						schema: name === 'table' ? { type: 'integer', minimum: 0 } : { type: 'string', format: 'uuid' },
						description: name === 'table' ? 'its index, from 0' : 'its id',
						required: true
					},
					'path'
				)
			),
			...query.map((one) => parameter(one, 'query')),
			...(changes
				? [
						parameter(
							{
								name: 'If-Match',
								schema: { type: 'string' },
								description: 'the version that was seen, as its ETag named it, or * for any',
								required: true
							},
							'header'
						)
					]
				: []),
			...(makes
				? [
						parameter(
							{
								name: 'Idempotency-Key',
								schema: { type: 'string', maxLength: 200 },
								description: 'asked again under the same key within a day, the same answer is given and nothing made'
							},
							'header'
						)
					]
				: [])
		],
		...(takes && {
			requestBody: {
				required: true,
				content:
					takes === 'file'
						? { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } }
						: { 'application/json': { schema: ref(takenName(takes)) } }
			}
		}),
		responses: {
			[gives.status]: {
				description: summary,
				...(hasVersion && { headers: version }),
				...(gives.schema && {
					content:
						gives.schema === 'file'
							? { '*/*': { schema: { type: 'string', format: 'binary' } } }
							: { 'application/json': { schema: ref(gives.schema) } }
				})
			},
			...(changes && { 412: problem('somebody else saved first'), 428: problem('If-Match is missing') }),
			429: problem('too many requests; Retry-After says when to go on'),
			default: problem('what is wrong, and where')
		}
	};
}

/** What is told of an event, beside its type and time. */
const EVENT_DATA: Readonly<Record<EventName, object>> = {
	'edition.published': {
		type: 'object',
		required: ['style', 'name', 'edition'],
		properties: { style: { type: 'string' }, name: { type: 'string' }, edition: { type: 'integer' } }
	},
	'run.done': {
		type: 'object',
		required: ['run', 'style', 'documents', 'failed'],
		properties: {
			run: { type: 'string' },
			style: { type: 'string' },
			documents: { type: 'integer' },
			failed: { type: 'integer' }
		}
	},
	'finding.new': {
		type: 'object',
		required: ['document', 'name', 'findings'],
		properties: {
			document: { type: 'string' },
			name: { type: 'string' },
			findings: { type: 'object', additionalProperties: { type: 'integer' } }
		}
	}
};

/** The description of the door for programs (OpenAPI 3.1), from what answers and what looks requests through. */
export const openApi = once(() => {
	const paths: Record<string, Record<string, object>> = {};
	for (const operation of OPERATIONS) {
		const at = (paths[operation.path] ??= {});
		at[operation.method.toLowerCase()] = described(operation);
	}
	const taken = OPERATIONS.flatMap(({ takes }) => (takes && takes !== 'file' ? [takes] : []));
	return {
		openapi: '3.1.0',
		info: {
			title: 'Heptarch',
			version: '1',
			description:
				'Documents, the tables in them, and the styles that tables wear. Show a token that a keeper of the house made: “Authorization: Bearer …”. Indices of tables, rows and columns count from 0; times are in UTC.'
		},
		servers: [{ url: '/api/v1' }],
		security: [{ token: [] }],
		tags: [...new Set(OPERATIONS.map(({ of }) => of))].map((name) => ({ name })),
		paths,
		webhooks: Object.fromEntries(
			Object.entries(EVENTS).map(([name, words]) => [
				name,
				{
					post: {
						summary: words,
						requestBody: {
							content: {
								'application/json': {
									schema: {
										type: 'object',
										required: ['type', 'timestamp', 'data'],
										properties: {
											type: { const: name },
											timestamp: { type: 'string', format: 'date-time' },
											data: EVENT_DATA[name as EventName]
										}
									}
								}
							}
						},
						responses: { '2XX': { description: 'heard; anything else is told again later' } }
					}
				}
			])
		),
		components: {
			securitySchemes: {
				token: {
					type: 'http',
					scheme: 'bearer',
					description: `For a role: ${Object.entries(ROLE_WORDS)
						.map(([role, words]) => `${role}: ${words}`)
						.join('; ')}.`
				}
			},
			schemas: {
				...Object.assign({}, ...Object.entries(ANSWERS).map(([name, schema]) => embedded(name, schema))),
				...Object.fromEntries(
					taken.filter((kind) => kind !== 'styleFile').map((kind) => [takenName(kind), SCHEMAS[kind]])
				)
			}
		}
	};
});
