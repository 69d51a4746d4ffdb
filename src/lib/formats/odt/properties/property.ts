import type { LookField } from '../../../core/properties/index.ts';
import { emu, type Emu } from '../../../core/units.ts';
import type { FieldCapability, ValueOf } from '../../sayable.ts';
import type { OdfStyles, Properties } from '../styles.ts';

export type Attributes = Readonly<Record<string, string>>;

/** A cell of a text document, for reading its look: the properties of what it stands in, and of its first text. */
export interface ReadCell {
	readonly table: Properties;
	readonly row: Properties;
	readonly cell: Properties;
	/** Of its first paragraph that has text. */
	readonly paragraph: Properties;
	/** Of each of its paragraphs. */
	readonly paragraphs: readonly Properties[];
	/** A background of its paragraphs or letters, where all of its text has the same. */
	readonly behind: string | undefined;
	/** Its table starts at the right. */
	readonly isRight: boolean;
}

/** Text, for reading how it shows: `inherited` is what a percentage of a size is of. */
export interface ReadText {
	readonly properties: Properties;
	readonly styles: OdfStyles;
	readonly inherited: Emu;
}

/** How a text document says one field of a look: in which property element of a style, by which attributes. */
export interface OdtField<V> extends FieldCapability<V> {
	readonly element: 'table-cell' | 'paragraph' | 'text';
	/** Attributes that say it, also those that only other programs write. */
	readonly owns: RegExp;
	/** `font` gives the name that a family is declared by. */
	attributes(value: V, font: (family: string) => string): Attributes;
}
/** A field that each run of text shows by itself. */
export interface OdtTextField<V> extends OdtField<V> {
	readonly element: 'text';
	readText(text: ReadText): V | undefined;
}
/** A field that the cell shows as a whole. */
export interface OdtCellField<V> extends OdtField<V> {
	readonly element: 'table-cell' | 'paragraph' | 'text';
	read(cell: ReadCell): V | undefined;
}
export type OdtTextFields<F extends LookField> = { readonly [K in F]: OdtTextField<ValueOf<K>> };
export type OdtCellFields<F extends LookField> = { readonly [K in F]: OdtCellField<ValueOf<K>> };

const UNITS: Record<string, number> = { cm: 360_000, mm: 36_000, in: 914_400, pt: 12_700, pc: 152_400, px: 9_525 };

/** An ODF length in EMU; percent is of `whole`. */
export function toEmu(value: string | undefined, whole?: number): Emu | undefined {
	const match = /^([+-]?(?:\d+\.?\d*|\.\d+))(cm|mm|in|pt|pc|px|%)$/.exec(value?.trim() ?? '');
	if (!match) return undefined;
	const number = Number(match[1]);
	if (match[2] === '%') return whole === undefined ? undefined : emu((number / 100) * whole);
	return emu(number * UNITS[match[2]!]!);
}

export const pt = (length: Emu): string => `${Number((length / 12_700).toFixed(6))}pt`;
