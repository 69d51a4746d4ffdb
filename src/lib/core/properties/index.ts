import { alignAcross } from './align-across.ts';
import { alignDown } from './align-down.ts';
import { letterCase } from './case.ts';
import { family } from './family.ts';
import { fill } from './fill.ts';
import { keep } from './keep.ts';
import { lineHeight } from './line-height.ts';
import { lines } from './lines.ts';
import { margins } from './margins.ts';
import { numberFormat } from './number-format.ts';
import { paragraphGap } from './paragraph-gap.ts';
import type { Field, Leaf, Property } from './property.ts';
import { rotation } from './rotation.ts';
import { size } from './size.ts';
import { slant } from './slant.ts';
import { tableShadow } from './table-shadow.ts';
import { textInk } from './text-ink.ts';
import { textShadow } from './text-shadow.ts';
import { tracking } from './tracking.ts';
import { typeRole } from './type-role.ts';
import { underline } from './underline.ts';
import type { Aspect } from './vocabulary.ts';
import { weight } from './weight.ts';

/** Every property, in the order of the canonical file and of the property sheet. */
const LISTED = [
	fill,
	typeRole,
	family,
	size,
	weight,
	slant,
	underline,
	letterCase,
	tracking,
	lineHeight,
	paragraphGap,
	textInk,
	textShadow,
	alignAcross,
	alignDown,
	rotation,
	margins,
	lines,
	tableShadow,
	numberFormat,
	keep
] as const;
export const PROPERTIES: readonly Property[] = LISTED;

type Intersection<Union> = (Union extends unknown ? (of: Union) => void : never) extends (of: infer All) => void
	? All
	: never;
/** `a.b.c` of V as nested settings. */
type Nested<Path extends string, V> = Path extends `${infer Group}.${infer Rest}`
	? { [K in Group]?: Nested<Rest, V> }
	: { [K in Path]?: V | null };
type ListedLeaf = (typeof LISTED)[number]['leaves'][number];
type ListedField = (typeof LISTED)[number]['fields'][number];

/** What one part sets, grouped as in the style file. A leaf that is absent (or null) is not set here. */
export type PartSettings = Intersection<
	ListedLeaf extends infer L ? (L extends Leaf<infer P, infer V> ? Nested<P, V> : never) : never
>;

/** A cell's look in computed values: inks are sRGB as they show, lengths are EMU. An absent field says nothing. */
export type Look = {
	readonly [F in ListedField as F['name']]?: F extends Field<string, infer V> ? V : never;
};
export type LookField = keyof Look;

/** Every leaf that a part can set, in the order of the canonical file. */
export const LEAVES: readonly Leaf[] = PROPERTIES.flatMap(({ leaves }) => leaves);
/** Every field that a look can have. */
export const FIELDS: readonly Field<LookField>[] = PROPERTIES.flatMap(({ fields }) => fields as Field<LookField>[]);
export const LOOK_FIELDS: readonly LookField[] = FIELDS.map(({ name }) => name);

const leafByPath = new Map(LEAVES.map((leaf) => [leaf.path, leaf]));
const fieldByName = new Map(FIELDS.map((field) => [field.name, field]));
const fieldsByLeaf = new Map(LEAVES.map(({ path }) => [path, FIELDS.filter(({ leaves }) => leaves.includes(path))]));

export const leafDefinition = (path: string): Leaf | undefined => leafByPath.get(path);
export const fieldDefinition = (name: LookField): Field<LookField> => fieldByName.get(name)!;
/** The fields of a look that a leaf bears on. */
export const fieldsOfLeaf = (path: string): readonly Field<LookField>[] => fieldsByLeaf.get(path) ?? [];
/** The aspect that a leaf belongs to; undefined where it is about pages. */
export const aspectOfLeaf = (path: string): Aspect | undefined => leafByPath.get(path)?.aspect ?? undefined;
/** Whether a leaf names an ink. */
export const isInkLeaf = (path: string): boolean => leafByPath.get(path)?.editor === 'ink';
