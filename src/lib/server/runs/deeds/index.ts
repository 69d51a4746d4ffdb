import type { RunSettings } from '../../database.ts';
import type { Deed } from './deed.ts';
import { rereadSchedules } from './reread.ts';
import { giveStyle } from './style.ts';
import { touchCells } from './touch.ts';

export { tablesOfRun, type Deed, type RunDocument, type RunFacts } from './deed.ts';

/** What a run of such settings does. */
export const deedOf = ({ reread, bring, mend }: RunSettings): Deed =>
	reread ? rereadSchedules : bring || mend ? touchCells : giveStyle;
