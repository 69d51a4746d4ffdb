import { HOUSE_OPERATIONS } from './operations/house.ts';
import { DOCUMENTS_OPERATIONS } from './operations/documents.ts';
import { TABLES_OPERATIONS } from './operations/tables.ts';
import { STYLES_OPERATIONS } from './operations/styles.ts';
import { RUNS_OPERATIONS } from './operations/runs.ts';
import { CENSUS_OPERATIONS } from './operations/census.ts';
import { WEBHOOKS_OPERATIONS } from './operations/webhooks.ts';
import type { Operation } from './operation.ts';

/** Everything that programs may ask for. */
export const OPERATIONS: readonly Operation[] = [
	...HOUSE_OPERATIONS,
	...DOCUMENTS_OPERATIONS,
	...TABLES_OPERATIONS,
	...STYLES_OPERATIONS,
	...RUNS_OPERATIONS,
	...CENSUS_OPERATIONS,
	...WEBHOOKS_OPERATIONS
];
