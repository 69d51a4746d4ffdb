import type { LookField } from '../../../core/properties/index.ts';
import { emu, type Emu } from '../../../core/units.ts';
import type { FieldCapability, ValueOf } from '../../sayable.ts';
import type { Computed, PageStyles } from '../cascade.ts';
import { toPx } from '../css.ts';
import type { Element } from '../dom.ts';

/** A cell of a page, for reading its look. */
export interface ReadCell {
	readonly element: Element;
	readonly styles: PageStyles;
	readonly computed: Computed;
	/** The `colgroup` and `col` of its first column. */
	readonly columns: readonly Element[];
	/** Its table starts at the right. */
	readonly isRight: boolean;
}

/** How a page says one field of a look: the declarations of a cell (CSS), and what they show. */
export interface HtmlField<V> extends FieldCapability<V> {
	/** Undefined where the page says nothing of it. */
	read(cell: ReadCell): V | undefined;
	/** For the cell itself; none where it is said elsewhere, or cannot be said. */
	declare(value: V): readonly string[];
}
export type HtmlFields<F extends LookField> = { readonly [K in F]: HtmlField<ValueOf<K>> };

/** What line height 1 of a style is in CSS. */
export { LEADING as LINE } from '../../../core/properties/defaults.ts';

export const isRightToLeft = (computed: Computed): boolean => computed.get('direction') === 'rtl';

const EMU_PER_PX = 9_525;
const EMU_PER_PT = 12_700;
export const fromPx = (px: number): Emu => emu(px * EMU_PER_PX);
export const pt = (length: Emu): string => `${Number((length / EMU_PER_PT).toFixed(6))}pt`;
export const sizeOf = (computed: Computed): number => Number(computed.get('font-size') ?? 16);
/** A length of the cell in EMU; 0 where it says none. */
export const lengthOf = ({ computed }: ReadCell, property: string): Emu =>
	fromPx(toPx(computed.get(property) ?? '0', sizeOf(computed), 0) ?? 0);
