import { InputError } from '../errors.ts';
import { anchorOf, isCovered, tidy, withCells, type Position, type Lock, type WorkTable } from './table.ts';

/** Whether a lock forbids a change of a cell's content, or of its look. */
export const forbids = (lock: Lock | undefined, what: 'content' | 'look'): boolean => lock === what || lock === 'both';

export const LOCK_WORDS: Readonly<Record<Lock, string>> = {
	content: 'content',
	look: 'look',
	both: 'content and look'
};

/** Throws InputError where one of some cells is locked against a change. */
export function guard(work: WorkTable, places: Iterable<Position>, what: 'content' | 'look'): void {
	for (const { r, c } of places) {
		const at = isCovered(work.rows[r]!.cells[c]!) ? anchorOf(work, r, c) : { r, c };
		const slot = work.rows[at.r]!.cells[at.c]!;
		if (!isCovered(slot) && forbids(slot.lock, what))
			throw new InputError(
				'locked',
				`The cell in row ${at.r + 1}, column ${at.c + 1}${slot.text.trim() ? ` (“${slot.text.trim().slice(0, 30)}”)` : ''} is locked: its ${LOCK_WORDS[slot.lock!]} stays. Unlock it first.`,
				`row ${at.r + 1}, column ${at.c + 1}`
			);
	}
}

/** Locks cells, or unlocks them. */
export const withLock = (work: WorkTable, places: Iterable<Position>, lock: Lock | undefined): WorkTable =>
	withCells(work, places, (cell) => (cell.lock === lock ? cell : tidy({ ...cell, lock })));
