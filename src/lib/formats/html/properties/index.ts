import type { Look, LookField } from '../../../core/properties/index.ts';
import type { Sayable } from '../../read-back.ts';
import { sayableLooks } from '../../sayable.ts';
import { ALIGNMENT } from './alignment.ts';
import { FILL } from './fill.ts';
import { nearestBorder } from '../../../core/properties/line.ts';
import { DIAGONALS } from './lines.ts';
import { MARGINS } from './margins.ts';
import { PARAGRAPH_GAP } from './paragraph-gap.ts';
import type { HtmlField, HtmlFields } from './property.ts';
import { SHADOW } from './shadow.ts';
import { TEXT } from './text.ts';

/** How a page says each field of a look. */
export const HTML_FIELDS: HtmlFields<LookField> = {
	...FILL,
	...TEXT,
	...PARAGRAPH_GAP,
	...SHADOW,
	...ALIGNMENT,
	...MARGINS,
	...DIAGONALS
};

const looks = sayableLooks(HTML_FIELDS);

/** What CSS can say of looks, lines and a table's shadow. */
export const SAYABLE: Sayable = { look: looks.look, line: nearestBorder, shadow: (shadow) => shadow };

/** The fields of a look that CSS cannot say as they are. */
export const lostLeaves = looks.lost;

/** The declarations of one field of a look, on its cell. */
export function declare(field: LookField, look: Look): readonly string[] {
	const value = look[field];
	return value === undefined ? [] : (HTML_FIELDS[field] as HtmlField<unknown>).declare(value);
}
