import { leavesSaying, lineSaying } from '$lib/core/lift/said.ts';
import { linePath } from '$lib/core/properties/lines.ts';
import { partWords } from '$lib/core/style/parts.ts';
import { LINE_PLACES, type LeafValue, type LinePlace, type LineSettings } from '$lib/core/style/types.ts';
import { leafWords } from '$lib/core/style/words.ts';
import { selectionWords } from '$lib/core/work/selection.ts';
import { cellOf, tidy } from '$lib/core/work/table.ts';
import { edgesIn, lineAt, lined, touched, touchedLeaf, type Edge } from '$lib/core/work/touches.ts';
import type { LeafSource, LineState, PropertyOwner } from '../style-bench/owner.ts';
import type { TableBench } from './bench.svelte.ts';

/** What is looked at of a large selection to say where its values come from. */
const LOOKED_AT = 300;

type LineProperty = keyof LineSettings;

/** The touches of the selected cells, as the property sheet shows and changes them. */
export class Touching implements PropertyOwner {
	constructor(private readonly bench: TableBench) {}

	get place(): string {
		const { r, c } = this.bench.selection.focus;
		return `${r},${c},${this.bench.selection.ranges.length}`;
	}
	get words(): string {
		return selectionWords(this.bench.work, this.bench.selection);
	}
	get inks() {
		return this.bench.inks;
	}
	get roles() {
		return this.bench.roles;
	}
	get house() {
		return this.bench.house;
	}
	private get cells() {
		return this.bench.cells.map(({ r, c }) => cellOf(this.bench.work, r, c));
	}

	/** The edges of the selection that a line's place stands for. */
	edges(place: LinePlace): Edge[] {
		const { work, selection } = this.bench;
		return selection.ranges.flatMap((range) =>
			place === 'betweenRows'
				? edgesIn(work, range, 'between rows')
				: place === 'betweenColumns'
					? edgesIn(work, range, 'between columns')
					: edgesIn(work, range, 'rim').filter(({ side }) => side === place)
		);
	}
	private static isDiagonal(place: string): boolean {
		return place.startsWith('diagonal');
	}

	source(path: string): LeafSource {
		const [group, place, property] = path.split('.') as [string, LinePlace, LineProperty];
		if (group === 'lines' && !Touching.isDiagonal(place)) {
			const edges = this.edges(place);
			const lines = edges.map((edge) => lineAt(this.bench.work, edge)?.[property] ?? undefined);
			const said = this.told(lines, undefined);
			return said.isSet || this.bench.flat
				? said
				: this.inFile(edges.map((edge) => this.lineInFile(edge)[property] ?? undefined));
		}
		const leaf = touchedLeaf(this.cells, path);
		if (leaf.set) return this.told([leaf.isMixed ? undefined : leaf.value], leaf);
		return this.below(path);
	}
	private told(
		values: readonly (LeafValue | undefined)[],
		leaf: { set: number; of: number; isMixed: boolean } | undefined
	): LeafSource {
		const distinct = new Set(values);
		const isMixed = leaf ? leaf.isMixed : distinct.size > 1;
		if (!leaf && values.every((value) => value === undefined))
			return { value: undefined, isSet: false, from: 'untouched' };
		const [value] = distinct;
		return { value: isMixed ? undefined : value, isSet: true, from: isMixed ? 'mixed' : 'touched' };
	}
	/** What the style says where no touch does. */
	private below(path: string): LeafSource {
		const { resolved, table, cells } = this.bench;
		const { leaves, structure } = resolved;
		const found = cells
			.slice(0, LOOKED_AT)
			.map(({ r, c }) => leaves[structure.cellSignature[r * table.columns + c]!]!.get(path));
		const [first] = found;
		if (found.some((one) => one?.value !== first?.value)) return { value: undefined, isSet: false, from: 'mixed' };
		if (!first) return this.bench.flat ? { value: undefined, isSet: false, from: 'nobody' } : this.lookInFile(path);
		const parts = new Set(found.map((one) => one?.part));
		return { value: first.value, isSet: false, from: parts.size > 1 ? 'several parts' : partWords(first.part) };
	}

	/** What a table without a style shows: the look that its file gives it. */
	private inFile(values: readonly (LeafValue | undefined)[]): LeafSource {
		const [value] = values;
		return values.every((one) => one === value)
			? { value, isSet: false, from: 'its file' }
			: { value: undefined, isSet: false, from: 'mixed' };
	}
	private lookInFile(path: string): LeafSource {
		const { appearance, table, cells, house } = this.bench;
		const looks = new Set(
			cells.slice(0, LOOKED_AT).map(({ r, c }) => appearance.cellLook[table.slots[r * table.columns + c]!]!)
		);
		return this.inFile([...looks].map((look) => leavesSaying(appearance.looks[look]!, house).get(path)));
	}
	private lineInFile({ r, c, side }: Edge): LineSettings {
		const { appearance, table, house } = this.bench;
		const { columns } = table;
		const edge =
			side === 'top' || side === 'bottom'
				? appearance.across[(side === 'top' ? r : r + 1) * columns + c]!
				: appearance.down[r * (columns + 1) + (side === 'start' ? c : c + 1)]!;
		return edge < 0 ? {} : lineSaying(appearance.lines[edge]!, house);
	}

	set(path: string, value: LeafValue | undefined): void {
		this.setAll([[path, value]], leafWords(path));
	}
	setAll(leaves: readonly (readonly [path: string, value: LeafValue | undefined])[], words: string): void {
		const isLine = ([path]: readonly [string, unknown]) => {
			const [group, place] = path.split('.') as [string, string];
			return group === 'lines' && !Touching.isDiagonal(place);
		};
		const own = leaves.filter((leaf) => !isLine(leaf));
		this.bench.edit(`${words} touched`, (work) => {
			let next = own.length ? touched(work, this.bench.cells, own) : work;
			for (const [path, value] of leaves.filter(isLine)) {
				const [, place, property] = path.split('.') as [string, LinePlace, LineProperty];
				for (const edge of this.edges(place)) {
					const line = tidy({ ...lineAt(next, edge), [property]: value }) as LineSettings;
					next = lined(next, [edge], Object.keys(line).length ? line : null);
				}
			}
			return next;
		});
	}
	choose(): void {
		// Touches come from no part that could be gone to.
	}

	get lineStates(): Record<LinePlace, LineState> {
		const stateOf = (place: LinePlace): LineState => {
			const { value, isSet } = this.source(linePath(place, 'pattern'));
			return !isSet ? 'untouched' : value === 'none' ? 'none' : 'set';
		};
		return Object.fromEntries(LINE_PLACES.map((place) => [place, stateOf(place)])) as Record<LinePlace, LineState>;
	}
}
