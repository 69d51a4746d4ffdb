import { ALIKE, comparedIn, portraitKey, WEIGHTS, type Portrait } from './likeness.ts';

const PLACE_WEIGHT = WEIGHTS.reduce((sum, weight) => sum + weight, 0);

/** A portrait in numbers: for each of its places, what it shows there. */
type Coded = ReadonlyMap<string, Int32Array>;

/** Looks that have the same places, with who shows what: for each place and thing compared, the looks by what they show. */
interface Shelf {
	readonly places: readonly string[];
	readonly shown: Map<string, number[]>;
}

export interface Near {
	readonly index: number;
	/** As {@link distance} gives it. */
	readonly distance: number;
}

/**
 * Looks among which the nearest to a portrait is found without comparing it with all: whatever is as near as `ALIKE` has to
 * show the same in one of few things, and the rarest are asked for first. Answers are those of comparing with all.
 */
export class Looks {
	private readonly values = new Map<string, number>();
	private readonly coded: (Coded | undefined)[] = [];
	private readonly equal = new Map<string, number>();
	private readonly shelves = new Map<string, Shelf>();
	/** How often two portraits were compared. */
	compared = 0;

	get size(): number {
		return this.coded.length;
	}

	/** Adds a portrait; answers its index, counted from 0. */
	add(portrait: Portrait): number {
		const index = this.coded.length;
		const coded = this.code(portrait);
		this.coded.push(coded);
		const key = portraitKey(portrait);
		if (!this.equal.has(key)) this.equal.set(key, index);
		const places = [...coded.keys()].sort();
		const name = JSON.stringify(places);
		let shelf = this.shelves.get(name);
		if (!shelf) this.shelves.set(name, (shelf = { places, shown: new Map() }));
		for (const [place, shows] of coded)
			shows.forEach((value, at) => {
				const token = `${place} ${at} ${value}`;
				const list = shelf.shown.get(token);
				if (list) list.push(index);
				else shelf.shown.set(token, [index]);
			});
		return index;
	}

	/** Takes a look out; the indices of the others stay. */
	remove(index: number): void {
		this.coded[index] = undefined;
		for (const [key, at] of this.equal) if (at === index) this.equal.delete(key);
	}

	/** The nearest of those that look alike, the first of several; undefined where none does. */
	nearest(portrait: Portrait): Near | undefined {
		const equal = this.equal.get(portraitKey(portrait));
		if (equal !== undefined) return { index: equal, distance: portrait.size ? 0 : 1 };
		const own = this.code(portrait);
		let best: Near | undefined;
		for (const shelf of this.shelves.values())
			for (const index of candidates(shelf, own)) {
				const other = this.coded[index];
				if (!other) continue;
				this.compared++;
				const apart = between(own, other);
				if (apart <= ALIKE && (!best || apart < best.distance || (apart === best.distance && index < best.index)))
					best = { index, distance: apart };
			}
		return best;
	}

	private code(portrait: Portrait): Coded {
		return new Map(
			[...portrait].map(([key, place]) => [
				key,
				Int32Array.from(comparedIn(place), (text) => {
					let value = this.values.get(text);
					if (value === undefined) this.values.set(text, (value = this.values.size));
					return value;
				})
			])
		);
	}
}

/** Every look of a shelf that can be as near as `ALIKE`: things that weigh more than may differ cannot all be otherwise. */
function candidates({ places, shown }: Shelf, own: Coded): ReadonlySet<number> {
	const shared = places.filter((place) => own.has(place));
	const found = new Set<number>();
	if (!shared.length) return found;
	const asked = shared
		.flatMap((place) =>
			Array.from(own.get(place)!, (value, at) => ({
				weight: WEIGHTS[at]!,
				who: shown.get(`${place} ${at} ${value}`) ?? []
			}))
		)
		// Per weight: what weighs much and few show says most.
		.sort((a, b) => a.who.length / a.weight - b.who.length / b.weight);
	const may = ALIKE * PLACE_WEIGHT * shared.length;
	let weighed = 0;
	for (const { weight, who } of asked) {
		for (const index of who) found.add(index);
		weighed += weight;
		if (weighed > may + 1e-9) break;
	}
	return found;
}

function between(a: Coded, b: Coded): number {
	let [differs, places] = [0, 0];
	for (const [key, shows] of a) {
		const other = b.get(key);
		if (!other) continue;
		places++;
		for (let at = 0; at < shows.length; at++) if (shows[at] !== other[at]) differs += WEIGHTS[at]!;
	}
	return places ? differs / (places * PLACE_WEIGHT) : 1;
}

/** Groups of things that look alike, largest first; each thing joins the group whose first member it resembles most. */
export function groupsOf<T>(items: readonly T[], portraitOf: (item: T) => Portrait): T[][] {
	const firsts = new Looks();
	const groups: T[][] = [];
	for (const item of items) {
		const own = portraitOf(item);
		const near = firsts.nearest(own);
		if (near) groups[near.index]!.push(item);
		else groups[firsts.add(own)] = [item];
	}
	return groups.sort((a, b) => b.length - a.length);
}
