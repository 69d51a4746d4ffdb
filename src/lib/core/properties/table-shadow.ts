import { property } from './property.ts';
import { shadowLeaves } from './shadow.ts';

export const TABLE_SHADOW = 'shadow';

/** The table's own shadow: outside the rim, never counted in its size; said in `ground` only (engine §3). */
export const tableShadow = property({
	section: 'Shadow',
	leaves: shadowLeaves(TABLE_SHADOW, 'table shadow', 'box-shadow', { aspect: 'fill', only: 'ground' }),
	fields: [],
	sentence: {
		place: 10,
		words: (value) => ((value(`${TABLE_SHADOW}.ink`) ?? 'none') === 'none' ? undefined : 'with a shadow around it')
	}
});
