import { behaviour, isBody, splitRole } from '../roles/index.ts';
import { type WorkRow, type WorkTable } from './table.ts';

/** Whether sums of a level stand above the rows that they are of: its first one comes before any of them. */
function readsUp({ rows }: Pick<WorkTable, 'rows'>, level: number): boolean {
	const isSum = ({ role }: WorkRow) => {
		const own = splitRole(role);
		return own.role.sums === 'block' && own.level === level;
	};
	const first = rows.findIndex(isSum);
	return rows.slice(0, first).every(({ role }) => !isBody(role)) && rows.slice(first).some(({ role }) => isBody(role));
}

/**
 * The body rows that a total or subtotal row is about (figures.md §3): all of them; or those since the last break of its
 * level or a higher one, which is a heading or subtotal of that level, or a header. A table that reads up is gone through
 * the other way.
 */
export function rowsAbout(work: Pick<WorkTable, 'rows'>, r: number): number[] {
	const { rows } = work;
	const counts = (y: number) => isBody(rows[y]!.role);
	if (behaviour(rows[r]!.role).sums !== 'block') return rows.flatMap((_, y) => (counts(y) ? [y] : []));
	const { level } = splitRole(rows[r]!.role);
	const step = readsUp(work, level) ? 1 : -1;
	const about: number[] = [];
	for (let y = r + step; y >= 0 && y < rows.length; y += step) {
		if (counts(y)) {
			about.push(y);
			continue;
		}
		const own = splitRole(rows[y]!.role);
		const isBreak =
			own.role.isHeader ||
			own.family === 'title' ||
			((own.family === 'group' || own.role.sums === 'block') && own.level <= level);
		if (isBreak && (about.length || own.role.sums === 'block')) break;
	}
	return step < 0 ? about.reverse() : about;
}
