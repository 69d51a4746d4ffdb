import { isMeantFor, type Place, type StyleUse } from './use.ts';
import type { House } from '../core/house.ts';
import { flatten, type FlatStyle } from '../core/style/inherit.ts';
import { describeStyle } from '../core/style/sentence.ts';
import type { Style } from '../core/style/types.ts';

export interface BookStyle {
	readonly id: string;
	readonly definition: Style;
	/** The published edition that `definition` is; absent or null for a draft. */
	readonly edition?: number | null;
	/** An edition of its draft would say something else than the newest one. */
	readonly unpublished?: boolean;
	/** It is put aside: offered to nobody who does not wear it. */
	readonly aside?: boolean;
	/** Where it is offered; everywhere where nothing is said. */
	readonly use?: StyleUse | null;
}

/** Under which key an edition that is not the newest (or, without a number, the draft of a published style) is looked up. */
export const editionKey = (style: string, edition: number | undefined): string => `${style}@${edition ?? 'draft'}`;

const FIRST = 1;

/** The house's styles with their inheritance resolved, for looking at. */
export class Stylebook<T extends BookStyle = BookStyle> {
	private readonly flats = new Map<string, FlatStyle>();
	private readonly byId: ReadonlyMap<string, T>;
	constructor(
		readonly styles: readonly T[],
		readonly house: House,
		/** What tables wear that is not the newest edition, by {@link editionKey}. */
		private readonly older: Readonly<Record<string, Style>> = {},
		/** The document in which styles are looked for. */
		private readonly place?: Place
	) {
		this.byId = new Map(styles.map((style) => [style.id, style]));
	}

	/** What can be chosen: all that are meant for the place and not put aside, and the one that is chosen. */
	offered(chosen?: string): readonly T[] {
		const { place } = this;
		return this.styles.filter(({ id, aside, use }) => id === chosen || (!aside && (!place || isMeantFor(use, place))));
	}

	get(id: string | undefined): T | undefined {
		return id === undefined ? undefined : this.byId.get(id);
	}

	flat(id: string): FlatStyle {
		let flat = this.flats.get(id);
		if (!flat) this.flats.set(id, (flat = this.flatten(this.byId.get(id)!.definition)));
		return flat;
	}

	/** What a table wears that puts a style on now: its newest edition, or the first, which is published with that. */
	wearing(style: string): { readonly style: string; readonly edition: number } {
		return { style, edition: this.get(style)?.edition ?? FIRST };
	}

	/** What a table wears, inheritance resolved; undefined where it wears nothing that is still here. */
	worn({ style, edition }: { readonly style?: string; readonly edition?: number }): FlatStyle | undefined {
		const record = this.get(style);
		if (!record) return undefined;
		if (edition === (record.edition ?? FIRST)) return this.flat(record.id);
		return this.olderFlat(record.id, edition) ?? this.flat(record.id);
	}
	private olderFlat(id: string, edition: number | undefined): FlatStyle | undefined {
		const key = editionKey(id, edition);
		const definition = this.older[key];
		if (!definition) return undefined;
		let flat = this.flats.get(key);
		if (!flat) this.flats.set(key, (flat = this.flatten(definition)));
		return flat;
	}

	/** A style's draft, where it says something else than the newest edition. */
	draft(id: string | undefined): FlatStyle | undefined {
		const record = this.get(id);
		return record?.unpublished ? this.olderFlat(record.id, undefined) : undefined;
	}

	flatten(definition: Style): FlatStyle {
		return flatten(definition, (reference) => this.byId.get(reference)?.definition);
	}

	sentence(id: string): string {
		return describeStyle(this.flat(id));
	}
}

/** What was changed in styles together with something else, by their ids. */
export type Along = Readonly<Record<string, { readonly before: Style; readonly after: Style }>>;

/**
 * What becomes of a style that arrives under a name that the house has for another one: both stay, the house's is used, or
 * the arriving one takes its place.
 */
export const CLASH_CHOICES = ['both', 'ours', 'instead'] as const;
export type ClashChoice = (typeof CLASH_CHOICES)[number];
