/** A line of steps, one of which stands; those after it were undone and can be done again. */
export interface Line<Step> {
	readonly steps: readonly Step[];
	/** Index of the one that stands. */
	readonly at: number;
}

/** A new step after the one that stands, in the place of what was undone. Only the newest `most` are kept. */
export function pushed<Step>({ steps, at }: Line<Step>, step: Step, most = Infinity): Line<Step> {
	const next = [...steps.slice(0, at + 1), step].slice(-most);
	return { steps: next, at: next.length - 1 };
}

/** Another step in the place of the one that stands; what was undone is gone. */
export const amended = <Step>({ steps, at }: Line<Step>, step: Step): Line<Step> => ({
	steps: [...steps.slice(0, at), step],
	at
});

/** The same line, standing at another step; as it was where there is no such step. */
export const moved = <Step>(line: Line<Step>, at: number): Line<Step> =>
	at >= 0 && at < line.steps.length && at !== line.at ? { ...line, at } : line;

/** What undo would take back, and what redo would do again; undefined where there is nothing. */
export const undoable = <Step extends { readonly label: string }>({ steps, at }: Line<Step>): string | undefined =>
	at > 0 ? steps[at]!.label : undefined;
export const redoable = <Step extends { readonly label: string }>({ steps, at }: Line<Step>): string | undefined =>
	steps[at + 1]?.label;

const isPlain = (value: unknown): value is Readonly<Record<string, unknown>> =>
	typeof value === 'object' && value !== null && Object.getPrototypeOf(value) === Object.prototype;

/**
 * A change from `seen` to `next`, made to what stands now: objects are gone through by their keys, whatever else differs
 * is replaced as a whole. What the change did not touch stays as it is now.
 */
export function laidOver<T extends object>(now: T, seen: T, next: T): T {
	const result = { ...now } as Record<string, unknown>;
	const was = seen as Readonly<Record<string, unknown>>;
	const to = next as Readonly<Record<string, unknown>>;
	for (const key of new Set([...Object.keys(was), ...Object.keys(to)])) {
		if (was[key] === to[key]) continue;
		const stands = result[key];
		if (!(key in to)) delete result[key];
		else if (isPlain(stands) && isPlain(was[key]) && isPlain(to[key]))
			result[key] = laidOver(stands, was[key], to[key]);
		else result[key] = to[key];
	}
	return result as T;
}
