import type { Look, LookField } from '../../../core/properties/index.ts';
import { acrossFrom, mirrored } from '../../sides.ts';
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

/** Which way a table and one of its cells run. */
export interface Runs {
	readonly isRight: boolean;
	/** The cell's text starts at the other side. */
	readonly isOther: boolean;
}

/** The declarations of one field of a look, on its cell. */
export function declare(field: LookField, look: Look, { isRight, isOther }: Runs): readonly string[] {
	const across = field === 'h' && look.h ? acrossFrom(look.h, isOther) : undefined;
	const value = across ?? (isRight ? mirrored(look) : look)[field];
	return value === undefined ? [] : (HTML_FIELDS[field] as HtmlField<unknown>).declare(value);
}
