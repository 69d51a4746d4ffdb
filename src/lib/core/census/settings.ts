import type { Appearance, Line } from '../cascade/look.ts';
import type { Hex } from '../colour.ts';
import { mostOf } from '../most.ts';
import { FIELDS, fieldDefinition, type LookField } from '../properties/index.ts';
import { lineWords } from '../properties/line.ts';
import { sameShown, shownKey } from '../properties/shadow.ts';
import { isBody, isHeader, ROLES, roleFamily, type RoleFamily } from '../roles/index.ts';
import { settingsOf } from '../style/leaves.ts';
import type { LeafValue } from '../style/types.ts';
import type { Side, Table, Touch } from '../table/grid.ts';
import { exactLength } from '../units.ts';

/** A table as it looks. */
export interface Seen {
	readonly table: Table;
	readonly appearance: Appearance;
}

type NameInk = (ink: Hex) => string;

/** One thing that tables of a house set differently, such as the fill of the header: how it is read, and how it is set. */
export interface VaryingSetting {
	readonly code: string;
	readonly words: string;
	/** What a table mostly shows there; undefined where it has no such place. */
	read(seen: Seen): unknown;
	/** A value as people read it. */
	say(value: unknown): string;
	/** Whether it can be brought to a value: to saying nothing it cannot, to showing nothing it can. */
	canBring(value: unknown): boolean;
	/** Touches by which a table shows a value there; none for cells that show it already. */
	bring(seen: Seen, value: unknown, name: NameInk): readonly Touch[];
}

/** So visible is what is worth telling apart, cell by cell. */
const WORTH = 2;

/** A field of the looks of the cells in rows of a family. */
function ofCells(family: RoleFamily, name: LookField): VaryingSetting {
	const field = fieldDefinition(name);
	const cellsOf = ({ table }: Seen) =>
		table.cells.flatMap((cell, i) =>
			roleFamily(table.roles[cell.r]!) === family && cell.text.trim() ? [{ ...cell, i }] : []
		);
	const shown = ({ appearance }: Seen, i: number) => appearance.looks[appearance.cellLook[i]!]![name];
	return {
		code: `${family} ${name}`,
		words: `${field.words} of ${family} rows`,
		read: (seen) => {
			const cells = cellsOf(seen);
			return cells.length
				? (mostOf(
						cells.map(({ i }) => shown(seen, i)),
						shownKey
					) ?? null)
				: undefined;
		},
		say: (value) => (value === null ? 'not said' : field.say(value as never)),
		canBring: (value) => value !== null && field.lift !== undefined,
		bring: (seen, value, nameOf) => {
			const leaves = new Map(value === null ? [] : (field.lift?.(value as never, nameOf) ?? []));
			if (!leaves.size) return [];
			return cellsOf(seen).flatMap(({ r, c, i }) =>
				sameShown(shown(seen, i), value) ? [] : [{ r, c, set: settingsOf(leaves) }]
			);
		}
	};
}

interface EdgePlace {
	readonly r: number;
	readonly c: number;
	readonly side: Side;
}

/** The lines at one kind of edges. */
function ofEdges(code: string, words: string, edgesOf: (table: Table) => readonly EdgePlace[]): VaryingSetting {
	const lineAt = ({ table, appearance }: Seen, { r, c, side }: EdgePlace): Line | null | undefined => {
		const at =
			side === 'top' || side === 'bottom'
				? appearance.across[(r + (side === 'bottom' ? 1 : 0)) * table.columns + c]!
				: appearance.down[r * (table.columns + 1) + c + (side === 'end' ? 1 : 0)]!;
		// Inside a joined cell there is no edge.
		if (at < 0) return undefined;
		const line = appearance.lines[at]!;
		return line?.pattern === 'none' ? null : line;
	};
	const shownAt = (seen: Seen) => edgesOf(seen.table).filter((edge) => lineAt(seen, edge) !== undefined);
	return {
		code,
		words,
		read: (seen) => {
			const edges = shownAt(seen);
			return edges.length
				? (mostOf(
						edges.map((edge) => lineAt(seen, edge)),
						shownKey
					) ?? null)
				: undefined;
		},
		say: (value) => lineWords(value as Line | null),
		canBring: () => true,
		bring: (seen, value, nameOf) => {
			const line = value as Line | null;
			return shownAt(seen).flatMap((edge) => {
				const { r, c, side } = edge;
				if (sameShown(lineAt(seen, edge), line)) return [];
				const at = (property: string) => `lines.${side}.${property}`;
				const leaves: [string, LeafValue][] = line
					? [
							[at('pattern'), line.pattern],
							[at('weight'), exactLength(line.weight)],
							[at('ink'), nameOf(line.ink)]
						]
					: [[at('pattern'), 'none']];
				return [{ r, c, set: settingsOf(new Map(leaves)) }];
			});
		}
	};
}

const along = (count: number, at: (i: number) => EdgePlace): EdgePlace[] =>
	Array.from({ length: count }, (_, i) => at(i));
const rowEdges = ({ columns }: Table, r: number, side: Side) => along(columns, (c) => ({ r, c, side }));

const LINES: readonly VaryingSetting[] = [
	ofEdges('rim', 'line of the rim', (table) => [
		...rowEdges(table, 0, 'top'),
		...rowEdges(table, table.rows - 1, 'bottom'),
		...along(table.rows, (r) => ({ r, c: 0, side: 'start' })),
		...along(table.rows, (r) => ({ r, c: table.columns - 1, side: 'end' }))
	]),
	ofEdges('below header', 'line below the header', (table) =>
		table.roles.flatMap((role, r) =>
			isHeader(role) && r + 1 < table.rows && !isHeader(table.roles[r + 1]!) ? rowEdges(table, r, 'bottom') : []
		)
	),
	ofEdges('between rows', 'line between rows', (table) =>
		table.roles.flatMap((role, r) =>
			isBody(role) && r + 1 < table.rows && isBody(table.roles[r + 1]!) ? rowEdges(table, r, 'bottom') : []
		)
	),
	ofEdges('above total', 'line above the total', (table) =>
		table.roles.flatMap((role, r) =>
			r > 0 && roleFamily(role) === 'total' && roleFamily(table.roles[r - 1]!) !== 'total'
				? rowEdges(table, r, 'top')
				: []
		)
	)
];

/** Everything that is looked at, in the order of the rows of a table, and then its lines. */
export const VARYING: readonly VaryingSetting[] = [
	...ROLES.flatMap(({ family }) =>
		FIELDS.filter(({ visible }) => visible >= WORTH).map(({ name }) => ofCells(family, name))
	),
	...LINES
];
const byCode = new Map(VARYING.map((setting) => [setting.code, setting]));
export const varyingSetting = (code: string): VaryingSetting | undefined => byCode.get(code);

/** What a table shows of each setting, by its code; a table without such a place says nothing of it. */
export function settingsIn(seen: Seen): Map<string, unknown> {
	const found = new Map<string, unknown>();
	for (const setting of VARYING) {
		const value = setting.read(seen);
		if (value !== undefined) found.set(setting.code, value);
	}
	return found;
}
