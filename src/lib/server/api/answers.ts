import { STYLE_SCHEMA } from '../../core/style/schema.ts';
import { EVENT_NAMES } from '../../workbench/events.ts';
import { ROLES } from '../../workbench/roles.ts';
import { TABLE_STATE, UUID } from '../../workbench/stored.ts';

const text = { type: 'string' };
const maybeText = { type: ['string', 'null'] };
const count = { type: 'integer', minimum: 0 };
const maybeCount = { type: ['integer', 'null'] };
const yesOrNo = { type: 'boolean' };
const when = { type: 'string', format: 'date-time' };
const maybeWhen = { type: ['string', 'null'], format: 'date-time' };
const list = (items: object) => ({ type: 'array', items });
const ref = (name: string) => ({ $ref: `#/components/schemas/${name}` });
/** What is said is all that is required; more may come with time. */
const open = (properties: Record<string, object>, optional: readonly string[] = []) => ({
	type: 'object',
	properties,
	required: Object.keys(properties).filter((name) => !optional.includes(name))
});
const page = (of: string) =>
	open({
		items: list(ref(of)),
		next: { ...maybeText, description: 'where the next page begins: say it as “after”; null after the last one' }
	});

const DOCUMENT = {
	id: UUID,
	name: text,
	kind: text,
	tables: count,
	styled: count,
	looks: count,
	findings: count,
	behind: count,
	wears: list(text),
	archived: yesOrNo,
	updatedAt: when
};

/** What programs are answered, by name: JSON Schemas for OpenAPI, and for the tests, which hold answers against them. */
export const ANSWERS: Readonly<Record<string, object>> = {
	Problem: {
		...open(
			{
				type: { type: 'string', description: 'what went wrong, as a URN of its code' },
				title: text,
				status: { type: 'integer' },
				detail: { type: 'string', description: 'what is wrong, in words for a person' },
				code: text,
				where: { type: 'string', description: 'the place in what was sent, as a JSON Pointer, or the file' },
				current: { description: 'what somebody else saved in the meantime' }
			},
			['where', 'current']
		),
		description: 'RFC 9457'
	},
	Me: open({ id: text, name: text, role: { enum: ROLES }, house: open({ id: UUID, name: text }) }),
	House: open({
		name: text,
		inks: { type: 'object' },
		typeRoles: { type: 'object' },
		locale: text,
		secondEyes: yesOrNo
	}),
	Document: open(DOCUMENT),
	DocumentFull: open({ ...DOCUMENT, version: count, step: count }),
	Documents: page('Document'),
	Account: open({ tables: list({ type: 'object' }), remarks: list(text) }),
	Step: open({ step: count, label: text, by: maybeText, when }),
	Steps: open({ items: list(ref('Step')), at: count, version: count }),
	Standing: open({ step: count, version: count, published: list(text) }),
	TableState: { ...TABLE_STATE, description: 'what somebody decided about a table; what is absent is as recognised' },
	Table: open({
		index: count,
		title: text,
		rows: count,
		columns: count,
		purpose: text,
		state: ref('TableState')
	}),
	Tables: open({ items: list(ref('Table')), version: count }),
	TableFile: {
		...open({
			format: { const: 'heptarch-table' },
			version: { const: 1 },
			cells: list(list(maybeText)),
			rows: list({}),
			columns: list({})
		}),
		description: 'a table file: /schema/table.json, with “about”: place, size, reasons, findings'
	},
	TableFull: open({ table: ref('TableFile'), state: ref('TableState') }),
	Figures: open({
		index: count,
		numbers: { type: 'object' },
		figures: list({ type: 'object' }),
		worked: list({ type: 'object' }),
		sums: list({ type: 'object' })
	}),
	Finding: open({ table: count, kind: text, words: text }),
	Findings: open({ items: list(ref('Finding')) }),
	Style: open({
		id: UUID,
		name: text,
		category: maybeText,
		description: maybeText,
		version: count,
		edition: maybeCount,
		unpublished: yesOrNo,
		aside: yesOrNo,
		updatedAt: when,
		worn: open({ tables: count, documents: count })
	}),
	Styles: page('Style'),
	StyleFile: STYLE_SCHEMA,
	Edition: open({ number: count, note: text, publishedAt: when, by: maybeText, proposedBy: maybeText }),
	Editions: open({ items: list(ref('Edition')) }),
	Published: open({ number: count }),
	Proposed: open({ id: UUID }),
	Made: open({ id: UUID }),
	RunDocument: open({
		document: UUID,
		name: text,
		kind: text,
		state: text,
		tables: count,
		differences: count,
		reason: maybeText
	}),
	Run: open({
		id: UUID,
		style: text,
		edition: maybeCount,
		by: maybeText,
		startedAt: when,
		state: { enum: ['running', 'stopped', 'done', 'undone'] },
		items: list(ref('RunDocument'))
	}),
	Runs: open({ items: list(ref('Run')) }),
	Census: { type: 'object' },
	CensusTable: open({ document: UUID, name: text, index: count, title: text, style: maybeText }),
	CensusTables: { type: 'object' },
	Webhook: open({
		id: UUID,
		url: text,
		events: list({ enum: EVENT_NAMES }),
		by: maybeText,
		since: when,
		last: { anyOf: [{ type: 'null' }, open({ at: maybeWhen, said: maybeText, isTold: yesOrNo })] }
	}),
	Webhooks: open({ items: list(ref('Webhook')) }),
	NewWebhook: open({ id: UUID, secret: { type: 'string', description: 'what events are signed with; told now alone' } })
};
