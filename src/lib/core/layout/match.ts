import type { Column } from '../table/grid.ts';
import type { Emu } from '../units.ts';

/**
 * The widths of a model's columns for another table: a column of the same name takes the model's width, else the next
 * one of the same kind, else it keeps its own. Tables with as many columns take them as they stand. Empty where the
 * model has no widths of its own.
 */
export function matchWidths(
	model: { readonly columns: readonly Column[]; readonly widths: readonly Emu[] },
	other: { readonly columns: readonly Column[]; readonly widths: readonly Emu[] }
): Emu[] {
	if (model.widths.length !== model.columns.length || model.widths.length === 0) return [];
	if (model.columns.length === other.columns.length) return [...model.widths];
	const free = new Set(model.columns.keys());
	const taken = new Array<Emu | undefined>(other.columns.length).fill(undefined);
	const take = (fits: (own: Column, theirs: Column) => boolean) =>
		other.columns.forEach((own, c) => {
			if (taken[c] !== undefined) return;
			const found = [...free].find((i) => fits(own, model.columns[i]!));
			if (found === undefined) return;
			free.delete(found);
			taken[c] = model.widths[found]!;
		});
	take((own, theirs) => own.name !== '' && own.name === theirs.name);
	take((own, theirs) => own.kind === theirs.kind);
	const mean = Math.round(model.widths.reduce<number>((sum, width) => sum + width, 0) / model.widths.length) as Emu;
	return taken.map((width, c) => width ?? other.widths[c] ?? mean);
}
