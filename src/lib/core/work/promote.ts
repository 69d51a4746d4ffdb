import { edgeAt, edgeParts } from '../cascade/resolve.ts';
import type { Structure } from '../cascade/structure.ts';
import type { LinePlace, LineSettings, PartSettings } from '../style/types.ts';
import { SIDES, type Side } from '../table/grid.ts';
import { anchorOf, cellOf, type WorkTable } from './table.ts';
import { lineAt, type Edge } from './touches.ts';

/** A side of a cell that touches give a line, with all its edges. */
interface TouchedSide {
	readonly side: Side;
	readonly line: LineSettings;
	readonly edges: readonly Edge[];
}

/** The sides of the cell at a slot that are touched; one whose edges are not all touched alike is left out. */
export function touchedSides(work: WorkTable, r: number, c: number): TouchedSide[] {
	const anchor = anchorOf(work, r, c);
	const down = Array.from({ length: anchor.rows }, (_, i) => anchor.r + i);
	const across = Array.from({ length: anchor.cols }, (_, i) => anchor.c + i);
	const slots: Record<Side, { r: number; c: number }[]> = {
		top: across.map((x) => ({ r: anchor.r, c: x })),
		bottom: across.map((x) => ({ r: anchor.r + anchor.rows - 1, c: x })),
		start: down.map((y) => ({ r: y, c: anchor.c })),
		end: down.map((y) => ({ r: y, c: anchor.c + anchor.cols - 1 }))
	};
	return SIDES.flatMap((side): TouchedSide[] => {
		const edges = slots[side].map((slot): Edge => ({ ...slot, side }));
		const lines = edges.map((edge) => lineAt(work, edge));
		const [line] = lines;
		const isOne = lines.every((one) => JSON.stringify(one) === JSON.stringify(line));
		return line && isOne ? [{ side, line, edges }] : [];
	});
}

/** What makes two cells touched alike; undefined for one that is not touched. */
export function touchKey(work: WorkTable, r: number, c: number): string | undefined {
	const { touch } = cellOf(work, r, c);
	const sides = touchedSides(work, r, c).map(({ side, line }) => [side, line]);
	return touch || sides.length ? JSON.stringify([touch, sides]) : undefined;
}

/**
 * A cell's touches as the settings of a part that it belongs to, or of a cell rule where `part` is absent: each touched
 * side as the line that it is for the part, with the edges whose touches that says.
 */
export function promotionOf(
	work: WorkTable,
	structure: Structure,
	r: number,
	c: number,
	part?: string
): { set: PartSettings; edges: readonly Edge[] } {
	const { touch = {} } = cellOf(work, r, c);
	const lines: { [place in LinePlace]?: LineSettings } = { ...touch.lines };
	const edges: Edge[] = [];
	for (const { side, line, edges: own } of touchedSides(work, r, c)) {
		const at = edgeAt(structure, own[0]!.r, own[0]!.c, side);
		const place = part === undefined ? side : edgeParts(structure, at).find((one) => one.part.name === part)?.place;
		if (!place) continue;
		lines[place] = line;
		edges.push(...own);
	}
	return { set: Object.keys(lines).length ? { ...touch, lines } : touch, edges };
}
