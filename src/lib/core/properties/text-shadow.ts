import { field, property } from './property.ts';
import { computeShadow, liftShadow, shadowLeaves, shadowWords, type Shadow } from './shadow.ts';

const PATH = 'text.shadow';
const leaves = shadowLeaves(PATH, 'text shadow', 'text-shadow', { aspect: 'text' });

export const textShadow = property({
	section: 'Shadow',
	leaves,
	fields: [
		field<'textShadow', Shadow | null>({
			name: 'textShadow',
			aspect: 'text',
			words: 'text shadow',
			leaves: leaves.map(({ path }) => path),
			visible: 1,
			unsaid: null,
			compute: (winning, context) => computeShadow(winning, PATH, context),
			say: shadowWords,
			lift: (shadow, name) => liftShadow(PATH, shadow, name)
		})
	],
	sentence: {
		place: 7,
		words: (value) => ((value(`${PATH}.ink`) ?? 'none') === 'none' ? undefined : 'with a shadow')
	}
});
