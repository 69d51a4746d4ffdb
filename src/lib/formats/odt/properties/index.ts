import { nearestBorder } from '../../../core/properties/line.ts';
import { LOOK_FIELDS, fieldDefinition, type Look, type LookField } from '../../../core/properties/index.ts';
import type { Aspect } from '../../../core/style/types.ts';
import type { Sayable } from '../../read-back.ts';
import { sayableLooks } from '../../sayable.ts';
import { CELL } from './cell.ts';
import { FILL } from './fill.ts';
import { PARAGRAPH } from './paragraph.ts';
import { TABLE_SHADOW_ATTRIBUTE, SHADOW } from './shadow.ts';
import { TEXT } from './text.ts';
import type { Attributes, OdtCellFields, OdtField, OdtTextFields } from './property.ts';

/** Fields that each run of text shows by itself. */
const TEXT_FIELDS = { ...TEXT, ...SHADOW };
export type TextField = keyof typeof TEXT_FIELDS;
export const ODT_TEXT_FIELDS: OdtTextFields<TextField> = TEXT_FIELDS;
/** The others: of the cell as a whole. */
export const ODT_CELL_FIELDS: OdtCellFields<Exclude<LookField, TextField>> = { ...FILL, ...PARAGRAPH, ...CELL };
/** How a text document says each field of a look. */
export const ODT_FIELDS = { ...ODT_CELL_FIELDS, ...ODT_TEXT_FIELDS };

const looks = sayableLooks(ODT_FIELDS);

/** What ODF can say of looks, lines and a table's shadow. */
export const SAYABLE: Sayable = { look: looks.look, line: nearestBorder, shadow: (shadow) => shadow };
export const lostLeaves = looks.lost;

/** The attributes of one kind of property element that say a look. */
export function attributesOf(
	element: OdtField<unknown>['element'],
	look: Look,
	font: (family: string) => string = (family) => family
): Attributes {
	const out: Record<string, string> = {};
	for (const field of LOOK_FIELDS) {
		const value = look[field];
		const definition = ODT_FIELDS[field] as OdtField<unknown>;
		if (value !== undefined && definition.element === element) Object.assign(out, definition.attributes(value, font));
	}
	return out;
}

const CELL_ELEMENTS = /^style:table-(cell|row)-properties$|^style:table-properties$/;

/** Which aspect of a look an attribute belongs to, in property elements of this kind; undefined for all others. */
export function aspectOf(element: string, name: string, value: string): Aspect | undefined {
	// Which way text runs is a fact of it, but for a cell whose text is turned.
	if (name === 'style:writing-mode' && !(element === 'style:table-cell-properties' && value === 'tb-rl'))
		return undefined;
	if (name === 'fo:background-color' && element === 'style:paragraph-properties') return 'fill';
	if (name === 'fo:background-color' && element === 'style:text-properties') return 'fill';
	if (CELL_ELEMENTS.test(element)) {
		if (/^(fo:border|style:border-line-width)/.test(name)) return 'linework';
		if (element === 'style:table-properties' && name === TABLE_SHADOW_ATTRIBUTE) return 'fill';
	}
	for (const field of LOOK_FIELDS) {
		const definition = ODT_FIELDS[field] as OdtField<unknown>;
		const isThere = CELL_ELEMENTS.test(element)
			? definition.element === 'table-cell'
			: definition.element !== 'table-cell';
		if (isThere && definition.owns.test(name)) return fieldDefinition(field).aspect;
	}
	return undefined;
}
