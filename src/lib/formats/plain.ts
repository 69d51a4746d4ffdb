import type { LookField } from '../core/cascade/look.ts';
import type { OpenDocument } from './document.ts';
import type { Prepared } from './job.ts';
import { tallyOf, type Account, type Tally } from './tally.ts';

/** An account of tables that are written without a way for their looks to be read back. */
export const plainAccount = (
	document: Pick<OpenDocument, 'remarks'>,
	prepared: readonly Prepared[],
	tally: (one: Prepared) => Tally,
	remarks: readonly string[] = []
): Account => ({
	tables: prepared.map((one) => tally(one).account(one, [])),
	remarks: [...document.remarks, ...remarks]
});

/** Rows have no looks: the account says so. */
export const noLooks = (one: Prepared): Tally =>
	tallyOf(one, (look) => (Object.keys(look) as LookField[]).map((leaf) => ({ leaf, what: 'looks of any kind' })));
/** Everything is drawn as it is meant. */
export const allLooks = (one: Prepared): Tally => tallyOf(one, () => []);
