import { findFigures } from '../../findings/figures.ts';
import { policyRule } from '../rule.ts';

const WRONG: ReadonlySet<string> = new Set(['total-off', 'units-mixed']);

export const totalsRight = policyRule({
	name: 'totals-right',
	words: () => 'No total is off.',
	judge: ({ table }) => findFigures(table).filter(({ kind }) => WRONG.has(kind))
});
