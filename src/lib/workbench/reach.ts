import type { House } from '../core/house.ts';
import { same } from '../core/merge.ts';
import { canonicalStyle } from '../core/style/canonical.ts';
import { detach } from '../core/style/edit.ts';
import { selfContained } from '../core/style/export.ts';
import { flatten, type FindBase, type FlatStyle } from '../core/style/inherit.ts';
import type { Style } from '../core/style/types.ts';

interface Wearable {
	readonly id: string;
	readonly definition: Style;
	readonly aside?: boolean;
	readonly worn: { readonly tables: number; readonly documents: number };
}

/** A style that a change elsewhere makes another, with what it is before and after. */
export interface Reached {
	readonly id: string;
	readonly name: string;
	readonly worn: Wearable['worn'];
	readonly before: FlatStyle;
	readonly after: FlatStyle;
}

/** All that a style says, whichever of its bases says it. */
const lookOf = (style: Style, house: House, find: FindBase): Style =>
	canonicalStyle(selfContained(detach(style, find), house));

/** Which styles of a house say something else once the house, or some of the styles (by id), are changed. */
export function reachOf(
	styles: readonly Wearable[],
	house: { readonly before: House; readonly after: House },
	changed: Readonly<Record<string, Style>> = {}
): Reached[] {
	const byId = new Map(styles.map(({ id, definition }) => [id, definition]));
	const was = (id: string) => byId.get(id);
	const becomes = (id: string) => (Object.hasOwn(changed, id) ? changed[id] : byId.get(id));
	return styles.flatMap(({ id, definition, worn, aside }) => {
		const next = becomes(id)!;
		if (aside || same(lookOf(definition, house.before, was), lookOf(next, house.after, becomes))) return [];
		return [{ id, name: definition.name, worn, before: flatten(definition, was), after: flatten(next, becomes) }];
	});
}
