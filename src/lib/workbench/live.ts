/** Things that several people may look at at once: a document, a style, or the house. */
export type Thing = `documents/${string}` | `styles/${string}` | 'house' | '';

const ID = '[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}';
const THING = new RegExp(`^(?:(?:documents|styles)/${ID}|house|)$`);
export const isThing = (text: string): text is Thing => THING.test(text);

/** What a page is about. */
export function thingOf(path: string): Thing {
	const [, place, id] = new RegExp(`^/(documents|stylebook)/(${ID})(?:/|$)`).exec(path) ?? [];
	if (id) return place === 'documents' ? `documents/${id}` : `styles/${id}`;
	return /^\/house(\/policy)?$/.test(path) ? 'house' : '';
}

/** That something stands at a version, by whom it came there (null: not known) and what that was. */
export interface Arrived {
	readonly version: number;
	readonly by: string | null;
	readonly label: string | null;
}

/** What changed somewhere in the house, for lists. */
export const LISTS = ['documents', 'styles', 'editions', 'house', 'runs', 'starters'] as const;
export type ListKind = (typeof LISTS)[number];

/** Somebody else who looks at the same thing. */
export interface Other {
	readonly id: string;
	readonly name: string;
}

/** What a web process tells a window, by the name of the event. */
export interface LiveEvents {
	/** Who else is on the thing. */
	others: readonly Other[];
	/** How the thing stands. */
	arrived: Arrived;
	/** What others changed elsewhere. */
	lists: readonly ListKind[];
}
