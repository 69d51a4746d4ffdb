import { toHex, type Hex } from '../../../core/colour.ts';
import { nearestBorder, type Line } from '../../../core/properties/line.ts';
import type { LinePattern } from '../../../core/style/types.ts';
import { emu, type Emu } from '../../../core/units.ts';
import { pt, toEmu } from './property.ts';

/** A border as attributes say it: "0.5pt solid #2f5d50". */
export function border(line: Line | null): string {
	const said = nearestBorder(line);
	return said ? `${pt(said.weight)} ${said.pattern} ${said.ink.toLowerCase()}` : 'none';
}

const PATTERNS: Record<string, LinePattern> = {
	solid: 'solid',
	dotted: 'dotted',
	dashed: 'dashed',
	'fine-dashed': 'dashed',
	double: 'double',
	'double-thin': 'double',
	'dash-dot': 'dash-dot',
	'dash-dot-dot': 'dash-dot'
};

export function readLine(value: string | undefined): Line | null {
	if (!value || /^(none|hidden)\b/.test(value)) return null;
	let [weight, pattern, ink]: [Emu | undefined, LinePattern, Hex] = [undefined, 'solid', '#000000'];
	for (const word of value.trim().split(/\s+/)) {
		const length = word === 'thin' ? emu(9_525) : word === 'thick' ? emu(25_400) : toEmu(word);
		if (length !== undefined) weight = length;
		else if (word.startsWith('#')) ink = toHex(word) ?? ink;
		else if (word === 'none' || word === 'hidden') return null;
		else pattern = PATTERNS[word] ?? 'solid';
	}
	return weight === 0 ? null : { pattern, weight: weight ?? emu(6_350), ink };
}
