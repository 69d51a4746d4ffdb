/** Something that stands in a drawing and says what it is. Places are millimetres on the sheet, from its top left corner. */
export interface DrawingObject {
	/** Its identity: by its id, else by its kind, attributes and place; see {@link objectKey}. */
	readonly key: string;
	readonly kind: string;
	readonly layer: string;
	/** The drawing that it stands in. */
	readonly drawing: string;
	readonly x: number;
	readonly y: number;
	readonly attributes: Readonly<Record<string, string>>;
}

/** What a kind of objects is: the symbol that draws it, what it is called, and how many there are. */
export interface ObjectKind {
	readonly kind: string;
	readonly name: string;
	/** Id of the symbol, where one draws it. */
	readonly symbol: string | null;
	readonly count: number;
	/** Attributes that its objects have: how many have them, how many different values there are, and some of those. */
	readonly attributes: readonly {
		readonly name: string;
		readonly count: number;
		readonly values: number;
		readonly samples: readonly string[];
	}[];
	readonly layers: readonly string[];
}

/** Parts what an identity without an id is made of. */
const PART = '\u241f';
/** Places are told apart down to a hundredth of a millimetre. */
const place = (value: number) => (Math.round(value * 100) / 100).toString();

/** The identity of an object: `#id` (`#id~2` for the second one of the same id), else kind, attributes and place. */
export function objectKey(
	id: string | undefined,
	occurrence: number,
	{ kind, attributes, x, y }: Pick<DrawingObject, 'kind' | 'attributes' | 'x' | 'y'>
): string {
	if (id) return occurrence > 1 ? `#${id}~${occurrence}` : `#${id}`;
	const said = Object.keys(attributes)
		.sort()
		.map((name) => `${name}=${attributes[name]}`)
		.join(';');
	const key = [kind, said, `${place(x)},${place(y)}`].join(PART);
	return occurrence > 1 ? `${key}~${occurrence}` : key;
}

/** The parts of an identity that rests on no id. */
function partsOf(key: string): { kind: string; said: string; x: number; y: number } | undefined {
	const [kind, said, at] = key.split(PART);
	if (at === undefined) return undefined;
	const [x, y] = at.split(',').map(Number.parseFloat) as [number, number];
	return { kind: kind!, said: said!, x, y };
}

/**
 * Which object of before each one of now is: the same identity; else, among those without ids, the nearest of the same
 * kind and attributes; else one of the same kind at the same place.
 */
export function matchObjects(before: readonly string[], now: readonly string[]): Map<string, string> {
	const known = new Set(before);
	const matched = new Map<string, string>();
	for (const key of now) if (known.delete(key)) matched.set(key, key);
	const left = now.filter((key) => !matched.has(key) && partsOf(key));
	const pool = (by: (parts: NonNullable<ReturnType<typeof partsOf>>) => string) => {
		const groups = new Map<string, string[]>();
		for (const key of known) {
			const parts = partsOf(key);
			if (!parts) continue;
			const name = by(parts);
			groups.set(name, [...(groups.get(name) ?? []), key]);
		}
		return groups;
	};
	const take = (key: string, old: string) => {
		matched.set(key, old);
		known.delete(old);
	};
	const alike = pool(({ kind, said }) => kind + PART + said);
	for (const key of left) {
		const { kind, said, x, y } = partsOf(key)!;
		const distance = (old: string) => Math.hypot(partsOf(old)!.x - x, partsOf(old)!.y - y);
		const candidates = (alike.get(kind + PART + said) ?? []).filter((old) => known.has(old));
		const nearest = candidates.reduce<string | undefined>(
			(best, old) => (best === undefined || distance(old) < distance(best) ? old : best),
			undefined
		);
		if (nearest !== undefined) take(key, nearest);
	}
	const there = pool(({ kind, x, y }) => [kind, x, y].join(PART));
	for (const key of left) {
		if (matched.has(key)) continue;
		const { kind, x, y } = partsOf(key)!;
		const old = there.get([kind, x, y].join(PART))?.find((one) => known.has(one));
		if (old !== undefined) take(key, old);
	}
	return matched;
}

const MOST_SAMPLES = 4;

/** The kinds of objects that a drawing holds, in the order in which they first stand in it. */
export function kindsOf(
	objects: readonly DrawingObject[],
	symbols: ReadonlyMap<string, { readonly name: string }>
): ObjectKind[] {
	const kinds = new Map<
		string,
		{ count: number; attributes: Map<string, { count: number; values: Set<string> }>; layers: Set<string> }
	>();
	for (const { kind, attributes, layer } of objects) {
		let own = kinds.get(kind);
		if (!own) kinds.set(kind, (own = { count: 0, attributes: new Map(), layers: new Set() }));
		own.count++;
		if (layer) own.layers.add(layer);
		for (const name in attributes) {
			let seen = own.attributes.get(name);
			if (!seen) own.attributes.set(name, (seen = { count: 0, values: new Set() }));
			seen.count++;
			seen.values.add(attributes[name]!);
		}
	}
	return [...kinds].map(([kind, { count, attributes, layers }]) => ({
		kind,
		name: symbols.get(kind)?.name ?? kind,
		symbol: symbols.has(kind) ? kind : null,
		count,
		attributes: [...attributes].map(([name, seen]) => ({
			name,
			count: seen.count,
			values: seen.values.size,
			samples: [...seen.values].slice(0, MOST_SAMPLES)
		})),
		layers: [...layers]
	}));
}
