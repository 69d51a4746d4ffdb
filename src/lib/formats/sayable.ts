import { fieldDefinition, LOOK_FIELDS, type Look, type LookField } from '../core/properties/index.ts';
import { sameShown } from '../core/properties/shadow.ts';
import type { LostLeaf } from './tally.ts';

/** The values of a field of a look. */
export type ValueOf<F extends LookField> = Exclude<Look[F], undefined>;

/** How a format says one field of a look. */
export interface FieldCapability<V> {
	/** The nearest that it can say; undefined where it can say nothing of the kind. As it is where absent. */
	nearest?(value: V, look: Look): V | undefined;
	/** Whether the nearest is so far off that an account names it. Where it says nothing of the kind, always. */
	isFar?(value: V, look: Look): boolean;
	/** What it cannot say, in an account; the field's own words where absent. */
	readonly cannot?: string;
}

/** One definition a field, of whatever kind a format needs; the compiler asks for every field there is. */
export type FieldCapabilities = { readonly [F in LookField]: FieldCapability<ValueOf<F>> };

export interface SayableLooks {
	/** A look as the format can say it. */
	readonly look: (look: Look) => Look;
	/** What of a look it cannot say. */
	readonly lost: (look: Look) => readonly LostLeaf[];
}

/** What a format can say of looks, by its definitions; the same answer for the same look. */
export function sayableLooks(fields: FieldCapabilities): SayableLooks {
	const known = new WeakMap<Look, { readonly look: Look; readonly lost: readonly LostLeaf[] }>();
	const sayingOf = (name: LookField) => fields[name] as FieldCapability<unknown>;
	const made = (look: Look) => {
		let own = known.get(look);
		if (own) return own;
		const said: Record<string, unknown> = {};
		const lost: LostLeaf[] = [];
		for (const name of LOOK_FIELDS) {
			const value: unknown = look[name];
			if (value === undefined) continue;
			const saying = sayingOf(name);
			const nearest = saying.nearest ? saying.nearest(value, look) : value;
			if (nearest !== undefined) said[name] = nearest;
			const isNothing = sameShown(value, fieldDefinition(name).unsaid);
			if (saying.isFar ? saying.isFar(value, look) : nearest === undefined && !isNothing)
				lost.push({ leaf: name, what: saying.cannot ?? fieldDefinition(name).words });
		}
		known.set(look, (own = { look: said, lost }));
		return own;
	};
	return { look: (look) => made(look).look, lost: (look) => made(look).lost };
}

/** A look from what a reader finds of each field; fields of which it finds nothing are not said. */
export function readLook(read: (field: LookField) => unknown): Look {
	const look: Record<string, unknown> = {};
	for (const name of LOOK_FIELDS) {
		const value = read(name);
		if (value !== undefined) look[name] = value;
	}
	return look;
}
