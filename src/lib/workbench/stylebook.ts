import type { House } from '../core/cascade/resolve.ts';
import { flatten, type FlatStyle } from '../core/style/inherit.ts';
import { describeStyle } from '../core/style/sentence.ts';
import type { Style } from '../core/style/types.ts';

export interface BookStyle {
	readonly id: string;
	readonly definition: Style;
}

/** The house's styles with their inheritance resolved, for looking at. */
export class Stylebook<T extends BookStyle = BookStyle> {
	private readonly flats = new Map<string, FlatStyle>();
	private readonly byId: ReadonlyMap<string, T>;
	constructor(
		readonly styles: readonly T[],
		readonly house: House
	) {
		this.byId = new Map(styles.map((style) => [style.id, style]));
	}

	get(id: string | undefined): T | undefined {
		return id === undefined ? undefined : this.byId.get(id);
	}

	flat(id: string): FlatStyle {
		let flat = this.flats.get(id);
		if (!flat) this.flats.set(id, (flat = this.flatten(this.byId.get(id)!.definition)));
		return flat;
	}

	flatten(definition: Style): FlatStyle {
		return flatten(definition, (reference) => this.byId.get(reference)?.definition);
	}

	sentence(id: string): string {
		return describeStyle(this.flat(id));
	}
}
