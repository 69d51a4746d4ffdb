import { plural } from '../../words.ts';
import { policyRule, someFail } from '../rule.ts';

export const noTouches = policyRule({
	name: 'no-touches',
	words: () => 'Nothing is set against the style.',
	usual: {},
	measure: ({ touches }) => touches.length,
	fails: someFail,
	judge: ({ touches }) => {
		const [first] = touches;
		return first
			? [{ r: first.r, c: first.c, words: `${plural(touches.length, 'cell')} of its own set against its style` }]
			: [];
	},
	mend: {
		words: () => 'Take those settings off',
		of: ({ touches }) => (touches.length ? { untouched: true } : undefined)
	}
});
