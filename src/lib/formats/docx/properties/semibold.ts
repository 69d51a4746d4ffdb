import { faceName } from '../../../core/layout/faces.ts';
import { SHIPPED } from '../../../core/layout/fonts.ts';

/** How a font calls its semibold face where a program knows regular and bold only. */
const ENDING = ' SemiBold';
/** Families with a face of their own for the weight 600. */
const FAMILIES = SHIPPED.filter((family) => faceName(family, 600, false).weight === 600);
const byName = new Map(FAMILIES.map((family) => [`${family}${ENDING}`.toLowerCase(), family as string]));

/** The family that says a weight by itself; undefined where weight and family are said apart. */
export const semiboldFamily = (family: string | undefined, weight: number | undefined): string | undefined =>
	weight === 600 && family !== undefined && (FAMILIES as readonly string[]).includes(family)
		? `${family}${ENDING}`
		: undefined;

/** The family that a name with a weight in it belongs to. */
export const familyOfSemibold = (name: string): string | undefined => byName.get(name.toLowerCase());
