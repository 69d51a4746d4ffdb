import type { Hex } from '../colour.ts';
import { exactLength, LENGTH_PATTERN, parseLength, type Emu } from '../units.ts';
import type { Aspect, LeafValue, LinePlace } from './vocabulary.ts';

/** A JSON Schema of values of type V, without null. */
export type SchemaOf<V> = Readonly<Record<string, unknown>> & { readonly __of?: V };

/** How a leaf is edited: which control, and how what is typed is read. */
export type Editor =
	'ink' | 'share' | 'length' | 'number' | 'choice' | 'flag' | 'family' | 'type role' | 'words' | 'currency' | 'date';

/** One thing that a part sets or does not set. */
export interface Leaf<Path extends string = string, V extends LeafValue = LeafValue> {
	/** As in a trace: `fill.ink`, `lines.top.weight`. */
	readonly path: Path;
	/** Which aspect carries it; leaves about pages have none and are always carried. */
	readonly aspect: Aspect | null;
	readonly schema: SchemaOf<V>;
	/** As people read it: "fill", "line above, weight". */
	readonly words: string;
	/** In a property sheet, below its section's heading. */
	readonly label: string;
	readonly editor: Editor;
	/** What is wrong with a value that the schema refuses, as a sentence. */
	readonly bounds?: string;
	/** The least and the most that is taken where somebody types it; a length may be up to 200mm where nothing is said. */
	readonly typed?: { readonly least?: string; readonly most?: string };
	/** Only this part can set it. */
	readonly only?: 'ground';
	/** Of a line at the edges of cells: which one, and what of it. */
	readonly edge?: { readonly place: LinePlace; readonly property: 'pattern' | 'weight' | 'ink' };
	/** A value as people read it; the value itself where absent. */
	say?(value: V): string;
	/** CSS declarations for the cells of a part that sets it (of `ground` alone: for the table); `colour` gives an ink as CSS. */
	css?(value: V, colour: (ink: string) => string): readonly string[];
	/** The same for the paragraphs in those cells: all of them, and those that follow another. */
	cssParagraphs?(value: V): { readonly all: readonly string[]; readonly following: readonly string[] };
}

/** The leaves that won for a cell, by path. */
export type Winning = ReadonlyMap<string, { readonly value: LeafValue }>;

/** What computing a field needs beside the leaves. */
export interface Computing {
	/** The sRGB of an ink; undefined for none and for unknown ones. */
	readonly ink: (name: string | undefined) => Hex | undefined;
	/** The fill that shows below the part that set the cell's fill ink. */
	readonly below: () => Hex | 'none' | undefined;
}

/** One thing that shows in a cell's look, computed from leaves. */
export interface Field<Name extends string = string, V = unknown> {
	readonly name: Name;
	readonly aspect: Aspect;
	/** As people read it in an account or a list of changes. */
	readonly words: string;
	/** The leaves that it rests on. */
	readonly leaves: readonly string[];
	/** How visible it is where tables are compared; 0 is not compared. */
	readonly visible: number;
	/** What shows where no part says anything: a lift need not have it said. undefined: that is for the page to say. */
	readonly unsaid: V | undefined;
	/** What shows where a look says nothing and the page has no say either; {@link unsaid} where absent. */
	readonly blank?: V;
	/** It is a length in EMU. */
	readonly isLength?: true;
	/** It shows only in cells of more than one paragraph; a look that does not say it has none. */
	readonly needsParagraphs?: true;
	compute(leaves: Winning, context: Computing): V | undefined;
	/** A value as people read it. */
	say(value: V): string;
	/** The leaves that say a value; `name` gives the name of an ink where the house has one. */
	lift?(value: V, name: (ink: Hex) => string): readonly (readonly [path: string, value: LeafValue])[];
}

/** Headings of a property sheet, in its order. */
export const SECTIONS = [
	'Fill',
	'Text',
	'Alignment',
	'Margins',
	'Lines',
	'Figures and dates',
	'Shadow',
	'Pages'
] as const;
export type Section = (typeof SECTIONS)[number];

/** Leaves that belong together, and what of a look they make. Each is a file of its own, listed in `index.ts`. */
export interface Property<L extends Leaf = Leaf, F extends Field = Field> {
	readonly section: Section;
	readonly leaves: readonly L[];
	/** Computed per cell. */
	readonly fields: readonly F[];
	/** Its words in the sentence that says what a part does, and its place among them: "bold", "on fern". */
	readonly sentence?: {
		readonly place: number;
		words(value: (path: string) => LeafValue | undefined): string | undefined;
	};
}

export const property = <L extends Leaf, F extends Field = never>(definition: Property<L, F>): Property<L, F> =>
	definition;

export const leaf = <const Path extends string, V extends LeafValue>(definition: Leaf<Path, V>): Leaf<Path, V> =>
	definition;

export const field = <const Name extends string, V>(definition: Field<Name, V>): Field<Name, V> => definition;

/** The field that one leaf says as it stands. */
export function plainField<const Name extends string, V extends LeafValue>(
	own: Pick<Leaf<string, V>, 'path' | 'aspect' | 'say'>,
	rest: Pick<Field<Name, V>, 'name' | 'words' | 'visible' | 'unsaid' | 'blank'> & Partial<Pick<Field<Name, V>, 'say'>>
): Field<Name, V> {
	return {
		aspect: own.aspect!,
		leaves: [own.path],
		compute: (leaves) => leaves.get(own.path)?.value as V | undefined,
		say: (value) => own.say?.(value) ?? String(value),
		lift: (value) => [[own.path, value]],
		...rest
	};
}

/** The field that one leaf says as a length. */
export function lengthField<const Name extends string>(
	own: Pick<Leaf, 'path' | 'aspect'>,
	rest: Pick<Field<Name, Emu>, 'name' | 'words' | 'visible' | 'unsaid' | 'blank' | 'needsParagraphs'>
): Field<Name, Emu> {
	return {
		aspect: own.aspect!,
		leaves: [own.path],
		isLength: true,
		compute(leaves) {
			const value = leaves.get(own.path)?.value;
			return value === undefined ? undefined : parseLength(String(value));
		},
		say: lengthWords,
		lift: (value) => [[own.path, exactLength(value)]],
		...rest
	};
}

/* ---- schemas ---- */

/** An ink's name, a hex colour, or the explicit none. */
export const INK_PATTERN = '^(#[0-9A-Fa-f]{6}|[\\p{L}][\\p{L}\\p{N} _-]*)$';
export const inkSchema: SchemaOf<string> = { type: 'string', pattern: INK_PATTERN };
export const shareSchema: SchemaOf<number> = { type: 'number', minimum: 0, maximum: 1 };
export const flagSchema: SchemaOf<boolean> = { type: 'boolean' };
export const lengthSchema: SchemaOf<string> = { type: 'string', pattern: LENGTH_PATTERN };
export const positiveLengthSchema: SchemaOf<string> = { type: 'string', pattern: LENGTH_PATTERN.replace('-?', '') };
export const choiceSchema = <const V extends LeafValue>(...values: readonly V[]): SchemaOf<V> => ({ enum: values });
export const wordsSchema = (minLength: number, maxLength: number): SchemaOf<string> => ({
	type: 'string',
	minLength,
	maxLength
});

/* ---- words ---- */

/** A length as people read it, in points; what is not a round number of them, in millimetres where that is rounder. */
export const lengthWords = (length: Emu): string => exactLength(length);
export const percentWords = (share: number): string => `${Math.round(share * 100)} %`;
export const yesOrNo = (value: boolean): string => (value ? 'yes' : 'no');
/** A CSS length as a style writes lengths. */
export const cssLength = (length: string): string => length.replace(' ', '');
