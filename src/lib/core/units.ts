import { InputError } from './errors.ts';

/** A length in English Metric Units (ECMA-376 Part 1, §20.1.2.1): always an integer. */
export type Emu = number & { readonly __unit: 'EMU' };

export const LENGTH_UNITS = ['mm', 'cm', 'pt', 'in'] as const;
export type LengthUnit = (typeof LENGTH_UNITS)[number];

const EMU_PER: Record<LengthUnit, number> = { mm: 36_000, cm: 360_000, pt: 12_700, in: 914_400 };

/** What a typed length looks like; shared with the JSON Schema. */
export const LENGTH_PATTERN = '^-?(\\d+(\\.\\d+)?|\\.\\d+) ?(mm|cm|pt|in)$';
const LENGTH = new RegExp(LENGTH_PATTERN);

export const emu = (value: number): Emu => Math.round(value) as Emu;

/** "1.5pt", "2 mm", "0.1in" → EMU, rounded to the nearest one. Throws InputError for anything else. */
export function parseLength(text: string): Emu {
	const trimmed = text.trim();
	if (!LENGTH.test(trimmed))
		throw new InputError('length', `“${text}” is not a length: write a number and mm, cm, pt or in, such as 1.5pt.`);
	const unit = trimmed.slice(-2) as LengthUnit;
	return emu(Number(trimmed.slice(0, -2)) * EMU_PER[unit]);
}

/** A length as somebody types it, as it is written: both decimal marks, any minus; without a unit it is in `unit`. */
export function typedLength(text: string, unit: LengthUnit): string {
	const said = text
		.trim()
		.replace('\u2212', '-')
		.replace(/(\d),(\d)/, '$1.$2');
	return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(said) ? `${said}${unit}` : said;
}

/** EMU → "1.5pt", with at most `digits` decimals and no trailing zeros. */
export function formatLength(length: Emu, unit: LengthUnit, digits = 3): string {
	return `${Number((length / EMU_PER[unit]).toFixed(digits))}${unit}`;
}

/** A length as a person would write it, that reads back as the very same EMU. */
export function exactLength(length: Emu): string {
	for (const [unit, digits] of [
		['pt', 2],
		['mm', 2],
		['pt', 4]
	] as const) {
		const text = formatLength(length, unit, digits);
		if (parseLength(text) === length) return text;
	}
	return formatLength(length, 'pt', 6);
}

export const toPoints = (length: Emu): number => length / EMU_PER.pt;
export const fromPoints = (points: number): Emu => emu(points * EMU_PER.pt);
/** CSS pixels at 96 to the inch. */
export const toPixels = (length: Emu): number => length / 9_525;
/** Twentieths of a point, the unit of most WordprocessingML measures (ST_TwipsMeasure, §22.9.2.14). */
export const fromTwips = (twips: number): Emu => emu(twips * 635);
export const toTwips = (length: Emu): number => Math.round(length / 635);
