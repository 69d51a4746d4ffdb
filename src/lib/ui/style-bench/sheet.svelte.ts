import type { House } from '$lib/core/house.ts';
import { appearanceOf, type Appearance } from '$lib/core/cascade/look.ts';
import { resolve, type Resolved } from '$lib/core/cascade/resolve.ts';
import type { Structure } from '$lib/core/cascade/structure.ts';
import { baseChain, type FindBase, type FlatStyle } from '$lib/core/style/inherit.ts';
import type { Style } from '$lib/core/style/types.ts';
import type { Table } from '$lib/core/table/grid.ts';
import type { Emu } from '$lib/core/units.ts';
import type { CellContent } from '$lib/core/table/content.ts';
import SpecimenWorker from '$lib/workers/specimens.ts?worker';
import type { SpecimensResolved, Order } from '$lib/workers/specimens.ts';

/** A table that a style is tried on. */
export interface SheetSpecimen {
	readonly key: string;
	readonly from: string;
	readonly title: string;
	readonly table: Table;
	readonly content: readonly (readonly CellContent[])[];
	readonly widths?: readonly Emu[];
	/** How its file has it. */
	readonly before?: Appearance;
	/** Rows of the whole table, where this is only an excerpt of it. */
	readonly outOf?: number;
}

/** A specimen in the style. */
export interface Shown {
	readonly specimen: SheetSpecimen;
	readonly resolved: Resolved;
	readonly appearance: Appearance;
}

/**
 * The specimens in the style that is being worked on. The first look is resolved at once (on the server, too); every
 * later one in a worker, the newest style only, however fast they come.
 */
export class Sheet {
	shown: readonly Shown[] = $state.raw([]);
	private worker: Worker | undefined;
	private next = 0;
	private waiting: { style: Style; flat: FlatStyle; house: House } | undefined;
	private asked: { id: number; flat: FlatStyle; house: House } | undefined;
	/** Kept per table, since the worker sends them once. */
	private readonly structures = new Map<string, { structure: Structure; cellLook: Int32Array }>();

	constructor(
		private specimens: readonly SheetSpecimen[],
		flat: FlatStyle,
		house: House,
		private readonly find: FindBase
	) {
		this.resolveHere(flat, house);
	}

	private resolveHere(flat: FlatStyle, house: House): void {
		this.shown = this.specimens.map((specimen) => {
			const resolved = resolve(specimen.table, flat, house);
			return { specimen, resolved, appearance: appearanceOf(resolved) };
		});
	}

	/** Other tables on the sheet. */
	put(specimens: readonly SheetSpecimen[], flat: FlatStyle, house: House): void {
		this.specimens = specimens;
		this.structures.clear();
		this.asked = undefined;
		this.resolveHere(flat, house);
		if (this.worker) this.tellTables();
	}

	/** Shows a style; resolves in the worker where there is one (in a browser). */
	show(style: Style, flat: FlatStyle, house: House): void {
		if (typeof Worker === 'undefined') {
			this.resolveHere(flat, house);
			return;
		}
		if (!this.worker) {
			this.worker = new SpecimenWorker();
			this.worker.addEventListener('message', ({ data }: MessageEvent<SpecimensResolved>) => this.take(data));
			this.tellTables();
		}
		this.waiting = { style, flat, house };
		this.ask();
	}

	close(): void {
		this.worker?.terminate();
		this.worker = undefined;
	}

	private tell(order: Order): void {
		this.worker!.postMessage(order);
	}
	private tellTables(): void {
		this.tell({ tables: this.specimens.map(({ key, table }) => ({ key, table })) });
	}

	private ask(): void {
		if (this.asked || !this.waiting) return;
		const { style, flat, house } = this.waiting;
		this.waiting = undefined;
		const id = ++this.next;
		this.asked = { id, flat, house };
		const chain = baseChain(style, this.find);
		const bases = [style, ...chain].flatMap(({ basedOn }, i) =>
			basedOn && chain[i] ? [[basedOn, chain[i]] as const] : []
		);
		this.tell({ id, style, bases, house });
	}

	private take({ id, tables, took }: SpecimensResolved): void {
		if (!this.asked || this.asked.id !== id) {
			// An answer about tables that are no longer on the sheet.
			this.ask();
			return;
		}
		const { flat, house } = this.asked;
		this.asked = undefined;
		const specimens = new Map(this.specimens.map((specimen) => [specimen.key, specimen]));
		this.shown = tables.flatMap(({ key, structure: sent, cellLook: sentLook, leaves, edges, ...shown }): Shown[] => {
			const specimen = specimens.get(key);
			if (!specimen) return [];
			if (sent && sentLook)
				this.structures.set(key, { structure: { ...sent, table: specimen.table }, cellLook: sentLook });
			const { structure, cellLook } = this.structures.get(key)!;
			const resolved: Resolved = { structure, style: flat, house, leaves, edges };
			return [
				{ specimen, resolved, appearance: { cellLook, across: structure.across, down: structure.down, ...shown } }
			];
		});
		performance.measure('heptarch:resolve', { start: performance.now() - took, duration: took });
		this.ask();
	}
}
