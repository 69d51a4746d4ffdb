import type { WorkTable } from '../core/work/table.ts';

/** Tables at steps of their work, by the step's id, so that a step is not replayed for every request; the newest 24. */
const replayed = new Map<number, WorkTable>();
const MOST = 24;

export function rememberWork(id: number, work: WorkTable): WorkTable {
	replayed.delete(id);
	replayed.set(id, work);
	if (replayed.size > MOST) replayed.delete(replayed.keys().next().value!);
	return work;
}

export const knownWork = (id: number): WorkTable | undefined => replayed.get(id);

/** What is remembered of steps that were written anew does not count any more. */
export function forgetWorks(ids: readonly number[]): void {
	for (const id of ids) replayed.delete(id);
}
