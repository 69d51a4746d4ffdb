import { BLACK, type Hex } from '../colour.ts';
import { exactLength, parseLength, type Emu } from '../units.ts';
import {
	cssLength,
	inkSchema,
	leaf,
	lengthSchema,
	lengthWords,
	positiveLengthSchema,
	type Computing,
	type SchemaOf,
	type Winning
} from './property.ts';
import type { Aspect, LeafValue } from './vocabulary.ts';

/** A shadow as it shows: moved by x (to the end) and y (down), softened by blur. null: none. */
export interface Shadow {
	readonly x: Emu;
	readonly y: Emu;
	readonly blur: Emu;
	readonly ink: Hex;
}

/** What a shadow is where its ink is said and the rest is not. */
const MOVED = '1pt';

/** The four leaves of a shadow under a path, said in CSS by a property of shadows. */
export function shadowLeaves<const Path extends string>(
	path: Path,
	words: string,
	css: 'text-shadow' | 'box-shadow',
	rest: { readonly aspect: Aspect; readonly only?: 'ground' }
) {
	const custom = (name: string) => `--${css}-${name}`;
	const length = <const Name extends string, V extends string>(
		name: Name,
		of: string,
		label: string,
		schema: SchemaOf<V>
	) =>
		leaf({
			path: `${path}.${name}`,
			schema,
			words: `${words}, ${of}`,
			label,
			editor: 'length',
			...(name === 'blur' && { bounds: 'A blur cannot be less than nothing.' }),
			css: (value: V) => [`${custom(name)}: ${cssLength(value)}`],
			...rest
		});
	return [
		length('x', 'moved across', 'Across', lengthSchema),
		length('y', 'moved down', 'Down', lengthSchema),
		length('blur', 'blur', 'Blur', positiveLengthSchema),
		leaf({
			path: `${path}.ink`,
			schema: inkSchema,
			words: `${words}, ink`,
			label: 'Ink',
			editor: 'ink',
			css: (ink, colour) =>
				ink === 'none'
					? [`${css}: none`]
					: [
							`${css}: var(${custom('x')}, ${MOVED}) var(${custom('y')}, ${MOVED}) var(${custom('blur')}, 0) ${colour(ink)}`
						],
			...rest
		})
	] as const;
}

/** A shadow needs an ink from somewhere; undefined where nobody names one. */
export function computeShadow(
	leaves: Winning,
	path: string,
	{ ink }: Pick<Computing, 'ink'>
): Shadow | null | undefined {
	const said = (name: string) => leaves.get(`${path}.${name}`)?.value;
	const name = said('ink');
	if (name === undefined) return undefined;
	if (name === 'none') return null;
	const length = (of: string, otherwise: string) => parseLength(String(said(of) ?? otherwise));
	return { x: length('x', MOVED), y: length('y', MOVED), blur: length('blur', '0pt'), ink: ink(String(name)) ?? BLACK };
}

export const shadowWords = (shadow: Shadow | null): string =>
	shadow
		? `${shadow.ink}, ${lengthWords(shadow.x)} across, ${lengthWords(shadow.y)} down, blur ${lengthWords(shadow.blur)}`
		: 'none';

/** The leaves that say a shadow. */
export function liftShadow(
	path: string,
	shadow: Shadow | null,
	name: (ink: Hex) => string
): readonly (readonly [string, LeafValue])[] {
	if (!shadow) return [[`${path}.ink`, 'none']];
	return [
		[`${path}.x`, exactLength(shadow.x)],
		[`${path}.y`, exactLength(shadow.y)],
		[`${path}.blur`, exactLength(shadow.blur)],
		[`${path}.ink`, name(shadow.ink)]
	];
}

/** A value of a look as a text: the same for two that show the same. */
export const shownKey = (value: unknown): string =>
	typeof value === 'object' && value ? JSON.stringify(Object.entries(value).sort()) : JSON.stringify(value ?? null);

/** Whether two values of a look show the same: shadows and lines are compared by what is in them, none is like nothing. */
export function sameShown(a: unknown, b: unknown): boolean {
	if (a === b) return true;
	const [left, right] = [a ?? null, b ?? null];
	if (left === right) return true;
	if (typeof left !== 'object' || typeof right !== 'object' || !left || !right) return false;
	const entries = Object.entries(left);
	return (
		entries.length === Object.keys(right).length &&
		entries.every(([key, value]) => (right as Record<string, unknown>)[key] === value)
	);
}
