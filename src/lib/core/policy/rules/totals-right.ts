import { findFigures } from '../../findings/figures.ts';
import { policyRule, someFail, type Subject } from '../rule.ts';

const WRONG: ReadonlySet<string> = new Set(['total-off', 'units-mixed']);
const found = ({ table }: Subject) => findFigures(table).filter(({ kind }) => WRONG.has(kind));

export const totalsRight = policyRule({
	name: 'totals-right',
	words: () => 'No total is off.',
	usual: {},
	measure: (subject) => found(subject).length,
	fails: someFail,
	judge: found
});
