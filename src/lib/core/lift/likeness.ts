import type { Appearance, Line, Look } from '../cascade/look.ts';
import { FIELDS } from '../properties/index.ts';
import { sameShown, shownKey } from '../properties/shadow.ts';
import { mostOf } from '../most.ts';
import type { Table } from '../table/grid.ts';
import { roleFamily, type RoleFamily } from '../roles/index.ts';

const SEEN = FIELDS.filter(({ visible }) => visible > 0);
const LINE_WEIGHT = 2;

/** The lines of a place that are compared. */
const SIDES = ['top', 'bottom', 'start'] as const;

/** What one kind of place in a table mostly looks like; a line is '' where none is drawn. */
interface Place extends Readonly<Record<(typeof SIDES)[number], string>> {
	readonly look: Look;
}

/** The looks of a table by the places that all tables have: the rows of each role, and their first column. */
export type Portrait = ReadonlyMap<string, Place>;

const lineKey = (line: Line | null | undefined): string =>
	!line || line.pattern === 'none' ? '' : `${line.pattern} ${line.weight} ${line.ink}`;

/** The portrait of a table as it looks. Body rows are told apart by whether they are odd or even, so that bands count. */
export function portrait(table: Table, appearance: Appearance): Portrait {
	const cells = new Map<string, number[]>();
	let body = 0;
	const families = table.roles.map((role) => {
		const family: RoleFamily = roleFamily(role);
		return family === 'body' ? `body ${body++ % 2}` : family;
	});
	table.cells.forEach(({ r, c }, i) => {
		if (Object.keys(appearance.looks[appearance.cellLook[i]!]!).length === 0) return;
		const key = `${families[r]!}${c === 0 ? ' first' : ''}`;
		const list = cells.get(key);
		if (list) list.push(i);
		else cells.set(key, [i]);
	});
	const line = (edges: Int32Array, at: number) => lineKey(edges[at]! < 0 ? null : appearance.lines[edges[at]!]);
	return new Map(
		[...cells].map(([key, list]): [string, Place] => {
			const look = appearance.looks[mostOf(list.map((i) => appearance.cellLook[i]!))]!;
			const at = (edge: (i: number) => string) => mostOf(list.map(edge));
			return [
				key,
				{
					look,
					top: at((i) => line(appearance.across, table.cells[i]!.r * table.columns + table.cells[i]!.c)),
					bottom: at((i) =>
						line(appearance.across, (table.cells[i]!.r + table.cells[i]!.rows) * table.columns + table.cells[i]!.c)
					),
					start: at((i) => line(appearance.down, table.cells[i]!.r * (table.columns + 1) + table.cells[i]!.c))
				}
			];
		})
	);
}

/** How differently two tables look over the places that both have: 0 alike, 1 in nothing alike. */
export function distance(a: Portrait, b: Portrait): number {
	let [differs, all] = [0, 0];
	for (const [key, place] of a) {
		const other = b.get(key);
		if (!other) continue;
		for (const { name, visible } of SEEN) {
			all += visible;
			if (!sameShown(place.look[name], other.look[name])) differs += visible;
		}
		for (const side of SIDES) {
			all += LINE_WEIGHT;
			if (place[side] !== other[side]) differs += LINE_WEIGHT;
		}
	}
	return all ? differs / all : 1;
}

/** Tables nearer than this look alike to a reader. */
export const ALIKE = 0.12;

/** What is compared of a place, in one order: how much it counts, and what it is for a place, as a text. */
const COMPARED: readonly { readonly weight: number; readonly of: (place: Place) => string }[] = [
	...SEEN.map(({ name, visible }) => ({ weight: visible, of: ({ look }: Place) => shownKey(look[name]) })),
	...SIDES.map((side) => ({ weight: LINE_WEIGHT, of: (place: Place) => place[side] }))
];
export const WEIGHTS: readonly number[] = COMPARED.map(({ weight }) => weight);
/** What is compared of a place, as texts that are equal where the place shows the same. */
export const comparedIn = (place: Place): string[] => COMPARED.map(({ of }) => of(place));

/** A portrait as a text: two that are equal have the distance 0 and the same places. */
export const portraitKey = (portrait: Portrait): string =>
	JSON.stringify([...portrait].sort(([a], [b]) => (a < b ? -1 : 1)).map(([key, place]) => [key, ...comparedIn(place)]));
