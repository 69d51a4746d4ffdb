import { leavesOf, settingsOf } from '../style/leaves.ts';
import type { PartSettings } from '../style/types.ts';
import type { Touch } from './grid.ts';

/** Touches with others laid over them, one for each cell: of a leaf that both set, the later stays. In reading order. */
export function withTouches(touches: readonly Touch[], over: readonly Touch[]): Touch[] {
	const byCell = new Map<string, { r: number; c: number; set: PartSettings }>();
	for (const { r, c, set } of [...touches, ...over]) {
		const key = `${r} ${c}`;
		const known = byCell.get(key);
		byCell.set(key, { r, c, set: known ? settingsOf(new Map([...leavesOf(known.set), ...leavesOf(set)])) : set });
	}
	return [...byCell.values()].sort((a, b) => a.r - b.r || a.c - b.c);
}
