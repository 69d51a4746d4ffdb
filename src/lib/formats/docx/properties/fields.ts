import type { Line } from '../../../core/properties/line.ts';
import { emu, fromPoints, fromTwips, toPoints, toTwips, type Emu } from '../../../core/units.ts';
import { sayableLooks, type FieldCapability, type FieldCapabilities } from '../../sayable.ts';
import type { Look } from '../../../core/properties/index.ts';
import { sayableLine } from './borders.ts';
import { semiboldFamily } from './semibold.ts';

/** Lengths further off than half a point are told. */
const FAR = emu(6_350);
const length = (nearest: (value: Emu) => Emu): FieldCapability<Emu> => ({
	nearest,
	isFar: (value) => Math.abs(nearest(value) - value) > FAR
});
const inTwips = length((value) => fromTwips(toTwips(value)));
const bold = (weight: number, { family }: Look) =>
	semiboldFamily(family, weight) ? weight : weight >= 600 ? 700 : 400;
const diagonal: FieldCapability<Line | null> = {
	nearest: (line) => sayableLine(line) ?? undefined,
	isFar: () => false
};
const NEVER = { nearest: () => undefined };

/** How WordprocessingML says each field of a look; what its elements are stands in the other files of this folder. */
export const DOCX_FIELDS: FieldCapabilities = {
	fill: {},
	family: {},
	// Half points.
	size: length((value) => fromPoints(Math.max(1, Math.round(toPoints(value) * 2)) / 2)),
	// Regular or bold, or a family that is called by its weight.
	weight: { nearest: bold, isFar: (weight, look) => bold(weight, look) !== weight },
	italic: {},
	underline: {},
	case: { nearest: (letters) => (letters === 'lower' || letters === 'title' ? undefined : letters) },
	tracking: inTwips,
	// 240ths of a line.
	lineHeight: { nearest: (factor) => Math.round(factor * 240) / 240 },
	paragraphGap: inTwips,
	ink: {},
	// w:shadow has neither offset, blur nor colour (§17.3.2.31).
	textShadow: NEVER,
	h: {},
	v: {},
	rotate: {},
	marginTop: inTwips,
	marginEnd: inTwips,
	marginBottom: inTwips,
	marginStart: inTwips,
	diagonalDown: diagonal,
	diagonalUp: diagonal
};

const looks = sayableLooks(DOCX_FIELDS);
/** A look as WordprocessingML can say it. */
export const sayableLook = looks.look;
/** The fields of a look that it cannot say at all, or not nearly. */
export const lostLeaves = looks.lost;
