import { OPENED } from '../../../formats/kinds.ts';
import { namedAmong } from '../../census/among.ts';
import { censusFacts, loadFindings, loadLooks, loadShare, loadVariations } from '../../census/read.ts';
import { db } from '../../database.ts';
import { readAmong, readCensusOf } from '../../http/requests.ts';
import type { Operation } from '../operation.ts';
import { text, query } from './parts.ts';

const CENSUS_OF = [
	query('kind', { enum: OPENED.map(({ kind }) => kind) }, 'only documents of this kind'),
	query('documents', text, 'only these documents, by ids with commas')
];

const VIEWS = { share: loadShare, looks: loadLooks, settings: loadVariations, findings: loadFindings } as const;

/** The census. */
export const CENSUS_OPERATIONS: readonly Operation[] = [
	...(Object.keys(VIEWS) as (keyof typeof VIEWS)[]).map((view): Operation => ({
		method: 'GET',
		path: `/census/${view}`,
		id: `census${view[0]!.toUpperCase()}${view.slice(1)}`,
		of: 'Census',
		summary: {
			share: 'How many tables wear styles, over time',
			looks: 'Groups of tables that look alike',
			settings: 'Settings in which tables differ',
			findings: 'Findings of all tables, counted'
		}[view],
		needs: 'reader',
		query: CENSUS_OF,
		gives: { status: 200, schema: 'Census' },
		run: async ({ url }) => {
			const of = readCensusOf(url);
			return { body: { facts: await censusFacts(db(), of), [view]: await VIEWS[view](db(), of) } };
		}
	})),
	{
		method: 'GET',
		path: '/census/tables',
		id: 'censusTables',
		of: 'Census',
		summary: 'The tables of a group of looks, with a value of a setting, with a finding, or that a rule flags',
		needs: 'reader',
		query: [
			...CENSUS_OF,
			query('look', { type: 'integer' }, 'a group of looks'),
			query('setting', text, 'a setting, with a value'),
			query('value', text, 'a value of the setting'),
			query('finding', text, 'a kind of finding'),
			query('rule', text, 'a rule of the policy')
		],
		gives: { status: 200, schema: 'CensusTables' },
		run: async ({ url }) => ({ body: await namedAmong(db(), readCensusOf(url), readAmong(url)) })
	}
];
