import { parsePart, partWords } from '../style/parts.ts';
import { unknownInks } from '../cascade/look.ts';
import { plural } from '../words.ts';
import { isInkLeaf } from '../properties/index.ts';
import { findingKind, found, type Finding } from './finding.ts';
import type { Trial } from './trial.ts';

export const unreachable = findingKind({
	code: 'part',
	called: 'part that nothing wears',
	of: ['style'],
	words: ({ part }: { readonly part: string; readonly stripes: number }) => `${partWords(part)} can never show`,
	why: ({ stripes }: { readonly part: string; readonly stripes: number }) =>
		`The cycle has ${plural(stripes, 'stripe')}.`,
	weight: () => 0.2
});

export const unknownInk = findingKind({
	code: 'ink',
	called: 'ink that is not known',
	of: ['style'],
	words: ({ ink }: { readonly ink: string }) => `Nobody knows the ink “${ink}”`,
	why: () =>
		'Neither the style nor the house has it, so it shows black. Add it to the house’s inks, or choose another.',
	weight: () => 0.9
});

/** Parts for a stripe that the cycle does not have. */
export function findUnreachableParts({ style, flat }: Trial): Finding[] {
	return [...flat.parts.keys()].flatMap((name): Finding[] => {
		const { family, number } = parsePart(name)!;
		const stripes =
			family === 'rowBand'
				? flat.bands.rowSizes.length
				: family === 'columnBand'
					? flat.bands.columnSizes.length
					: Infinity;
		if (number <= stripes) return [];
		return [
			found(
				unreachable,
				{ part: name, stripes },
				{
					place: name,
					fixes: style.parts[name] ? [{ words: `Take ${partWords(name)} out`, removePart: name }] : []
				}
			)
		];
	});
}

/** Inks that neither the style nor the house knows: they show black, or nothing. */
export function findUnknownInks({ flat, house }: Trial): Finding[] {
	return unknownInks({ style: flat, house }).map((ink) => {
		const place = [...flat.parts].find(([, leaves]) =>
			[...leaves].some(([path, { value }]) => isInkLeaf(path) && value === ink)
		)?.[0];
		return found(unknownInk, { ink }, place ? { place } : {});
	});
}
