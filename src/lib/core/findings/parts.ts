import { parsePart, partWords } from '../style/parts.ts';
import { unknownInks } from '../cascade/look.ts';
import type { Finding, Trial } from './types.ts';

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
			{
				kind: 'part',
				what: `${partWords(name)} can never show`,
				why: `The cycle has ${stripes} ${stripes === 1 ? 'stripe' : 'stripes'}.`,
				place: name,
				fixes: style.parts[name] ? [{ words: `Take ${partWords(name)} out`, removePart: name }] : [],
				weight: 0.2
			}
		];
	});
}

/** Inks that neither the style nor the house knows: they show black, or nothing. */
export function findUnknownInks({ flat, house }: Trial): Finding[] {
	return unknownInks({ style: flat, house }).map((ink) => {
		const place = [...flat.parts].find(([, leaves]) =>
			[...leaves].some(([path, { value }]) => path.endsWith('ink') && value === ink)
		)?.[0];
		return {
			kind: 'ink',
			what: `Nobody knows the ink “${ink}”`,
			why: 'Neither the style nor the house has it, so it shows black. Add it to the house’s inks, or choose another.',
			...(place && { place }),
			fixes: [],
			weight: 0.9
		};
	});
}
