import { findNotAligned } from '../../findings/not-aligned.ts';
import { isBody } from '../../roles/index.ts';
import { policyRule, someFail, type Subject } from '../rule.ts';

const found = ({ table, appearance }: Subject) => findNotAligned(table, appearance);

export const figuresAligned = policyRule({
	name: 'figures-aligned',
	words: () => 'Figures stand at the end of their cells.',
	usual: {},
	measure: (subject) => found(subject).length,
	fails: someFail,
	judge: found,
	mend: {
		words: () => 'Move those figures to the end',
		of: (subject) => {
			const columns = new Set(found(subject).map(({ c }) => c));
			const touches = subject.table.cells.flatMap(({ r, c, cols, text }) =>
				columns.has(c) && cols === 1 && text.trim() && isBody(subject.table.roles[r]!)
					? [{ r, c, set: { align: { h: 'end' as const } } }]
					: []
			);
			return touches.length ? { touches } : undefined;
		}
	}
});
