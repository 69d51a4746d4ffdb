import { BLACK, mix, PAPER, toHex, type Hex } from '../../core/colour.ts';

/** Declarations of the properties that a table's look has, as longhands. */
export type Declarations = ReadonlyMap<string, string>;

const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const STYLES: ReadonlySet<string> = new Set(
	'none hidden dotted dashed solid double groove ridge inset outset'.split(' ')
);
/** Sides that go by the direction of text, and those that do not. */
const LOGICAL: Record<string, string> = { 'block-start': 'top', 'block-end': 'bottom' };

/** A property of the side where text starts or ends, as one of the left or right. */
export const physical = (property: string, isRight: boolean): string =>
	property.replace(/inline-(start|end)/, (_, side: string) => ((side === 'start') !== isRight ? 'left' : 'right'));

/** Cuts a value at its spaces, but not inside parentheses or quotes. */
export function words(value: string): string[] {
	return value.match(/(?:[^\s("']+\((?:[^()]|\((?:[^()]|\([^()]*\))*\))*\)|"[^"]*"|'[^']*'|[^\s"'])+/g) ?? [];
}

const fourSides = (value: string): string[] => {
	const [top = '', right = top, bottom = top, left = right] = words(value);
	return [top, right, bottom, left];
};

function* border(sides: readonly string[], value: string): Generator<[string, string]> {
	let [width, style, colour] = ['medium', 'none', 'currentcolor'];
	for (const word of words(value)) {
		const lower = word.toLowerCase();
		if (STYLES.has(lower)) style = lower;
		else if (/^(thin|medium|thick|[\d.+-].*)$/.test(lower)) width = lower;
		else colour = word;
	}
	for (const side of sides) {
		yield [`border-${side}-width`, width];
		yield [`border-${side}-style`, style];
		yield [`border-${side}-color`, colour];
	}
}

function* font(value: string): Generator<[string, string]> {
	const match =
		/^(.*?)(?:^|\s)((?:[\d.]+(?:px|pt|pc|em|rem|%|mm|cm|in)|xx-small|x-small|small|medium|large|x-large|xx-large|smaller|larger))(?:\s*\/\s*([^\s"']+))?(?:\s+|(?=["']))(.+)$/i.exec(
			value
		);
	if (!match) return;
	const [, before = '', size, line = 'normal', family] = match;
	yield ['font-style', /italic|oblique/i.test(before) ? 'italic' : 'normal'];
	yield ['font-weight', /\b(bold|bolder|lighter|\d{3})\b/i.exec(before)?.[1] ?? 'normal'];
	yield ['font-variant-caps', /small-caps/i.test(before) ? 'small-caps' : 'normal'];
	yield ['font-size', size!];
	yield ['line-height', line];
	yield ['font-family', family!];
}

const KEPT: ReadonlySet<string> = new Set(
	'color background-color box-shadow text-shadow margin-top margin-bottom font-family font-size font-style font-weight font-variant-caps line-height letter-spacing text-align text-decoration-line text-decoration-style text-transform vertical-align writing-mode direction border-collapse border-spacing display list-style-type height break-inside'.split(
		' '
	)
);

/** The longhands of one declaration; nothing for properties that no table look has. Those of a side where text starts or ends stay so: see {@link physical}. */
export function* longhands(property: string, value: string): Generator<[string, string]> {
	if (property.startsWith('--')) {
		yield [property, value];
		return;
	}
	for (const [logical, side] of Object.entries(LOGICAL)) property = property.replace(`-${logical}`, `-${side}`);
	switch (property) {
		case 'background':
			yield ['background-color', words(value).find((word) => toColour(word) !== undefined) ?? 'transparent'];
			return;
		case 'border':
			yield* border(SIDES, value);
			return;
		case 'border-block':
			yield* border(['top', 'bottom'], value);
			return;
		case 'border-inline':
			yield* border(['inline-start', 'inline-end'], value);
			return;
		case 'border-top':
		case 'border-right':
		case 'border-bottom':
		case 'border-left':
		case 'border-inline-start':
		case 'border-inline-end':
			yield* border([property.slice(7)], value);
			return;
		case 'border-width':
		case 'border-style':
		case 'border-color': {
			const values = fourSides(value);
			for (const [i, side] of SIDES.entries()) yield [`border-${side}-${property.slice(7)}`, values[i]!];
			return;
		}
		case 'margin':
		case 'margin-block': {
			const values = words(value);
			const [top = '', bottom = top] = property === 'margin' ? [values[0], values[2] ?? values[0]] : values;
			yield ['margin-top', top];
			yield ['margin-bottom', bottom];
			return;
		}
		case 'padding': {
			const values = fourSides(value);
			for (const [i, side] of SIDES.entries()) yield [`padding-${side}`, values[i]!];
			return;
		}
		case 'padding-block':
		case 'padding-inline': {
			const [start = '', end = start] = words(value);
			const [a, b] = property === 'padding-block' ? ['top', 'bottom'] : ['inline-start', 'inline-end'];
			yield [`padding-${a}`, start];
			yield [`padding-${b}`, end];
			return;
		}
		case 'font':
			yield* font(value);
			return;
		case 'font-variant':
			yield ['font-variant-caps', /small-caps/i.test(value) ? 'small-caps' : 'normal'];
			return;
		case 'text-decoration':
			yield ['text-decoration-line', /underline/i.test(value) ? 'underline' : 'none'];
			yield ['text-decoration-style', /double/i.test(value) ? 'double' : 'solid'];
			return;
		case 'list-style': {
			const type = words(value).find((word) => !/^(inside|outside|url\(.*)$/i.test(word));
			if (type) yield ['list-style-type', type.toLowerCase()];
			return;
		}
		case 'page-break-inside':
			yield ['break-inside', value];
			return;
		default:
			if (
				KEPT.has(property) ||
				/^(padding-(top|right|bottom|left|inline-start|inline-end)|border-(top|right|bottom|left|inline-start|inline-end)-(width|style|color))$/.test(
					property
				)
			)
				yield [property, value];
	}
}

/** sRGB with how opaque it is. */
export interface Colour {
	readonly hex: Hex;
	readonly opacity: number;
}

/** A CSS colour; undefined where it is none. `color-mix` is understood in sRGB, as Heptarch's own style sheets use it. */
export function toColour(value: string, current?: Hex): Colour | undefined {
	const text = value.trim();
	if (/^currentcolor$/i.test(text)) return current && { hex: current, opacity: 1 };
	if (/^transparent$/i.test(text)) return { hex: PAPER, opacity: 0 };
	const mixed = /^color-mix\(\s*in srgb\s*,(.*)\)$/is.exec(text);
	if (mixed) return mixColours(mixed[1]!, current);
	const alpha = /^(?:rgba?|hsla?|oklch|oklab|lch|lab)\(.*?[,/]\s*([\d.]+%?)\s*\)$/i.exec(text);
	const hex = /^#([\da-f]{3,8})$/i.exec(text)?.[1];
	let opacity = 1;
	if (hex?.length === 8) opacity = parseInt(hex.slice(6), 16) / 255;
	else if (hex?.length === 4) opacity = parseInt(hex[3]! + hex[3]!, 16) / 255;
	else if (alpha && (text.includes('/') || text.split(',').length > 3))
		opacity = alpha[1]!.endsWith('%') ? parseFloat(alpha[1]!) / 100 : Number(alpha[1]);
	const solid = toHex(text);
	return solid && { hex: solid, opacity };
}

function mixColours(inside: string, current?: Hex): Colour | undefined {
	let depth = 0;
	const cut = [...inside].findIndex((char) => {
		if (char === '(') depth++;
		if (char === ')') depth--;
		return char === ',' && depth === 0;
	});
	if (cut < 0) return undefined;
	const part = (text: string) => {
		const [, name = text, share] = /^\s*(.*?)\s*(?:\s([\d.]+)%)?\s*$/s.exec(text) ?? [];
		return { colour: toColour(name, current), share: share === undefined ? undefined : Number(share) / 100 };
	};
	const first = part(inside.slice(0, cut));
	const second = part(inside.slice(cut + 1));
	if (!first.colour || !second.colour) return undefined;
	const share = first.share ?? (second.share === undefined ? 0.5 : 1 - second.share);
	const opacity = first.colour.opacity * share + second.colour.opacity * (1 - share);
	// Mixed premultiplied (CSS Color 5 §3): a colour that is not there does not show.
	const weight = opacity === 0 ? 0 : (first.colour.opacity * share) / opacity;
	return { hex: mix(first.colour.hex, second.colour.hex, weight), opacity };
}

const ABSOLUTE: Record<string, number> = {
	px: 1,
	pt: 96 / 72,
	pc: 16,
	in: 96,
	cm: 96 / 2.54,
	mm: 96 / 25.4,
	q: 96 / 101.6
};

/** A length in CSS pixels; `em` is the font's size, `percent` what 100 % is. Undefined where it is none. */
export function toPx(value: string, em: number, percent?: number): number | undefined {
	const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)([a-z%]*)$/i.exec(value.trim());
	if (!match) return undefined;
	const number = Number(match[1]);
	const unit = match[2]!.toLowerCase();
	if (unit === '') return number === 0 ? 0 : undefined;
	if (ABSOLUTE[unit]) return number * ABSOLUTE[unit];
	if (unit === 'em') return number * em;
	if (unit === 'rem') return number * 16;
	if (unit === 'ex' || unit === 'ch') return number * em * 0.5;
	if (unit === '%' && percent !== undefined) return (number / 100) * percent;
	return undefined;
}

const SIZES: Record<string, number> = {
	'xx-small': 9,
	'x-small': 10,
	small: 13,
	medium: 16,
	large: 18,
	'x-large': 24,
	'xx-large': 32
};

/** A font size in CSS pixels. */
export const fontPx = (value: string, parent: number): number | undefined =>
	SIZES[value] ??
	(value === 'smaller' ? parent / 1.2 : value === 'larger' ? parent * 1.2 : toPx(value, parent, parent));

export const borderPx = (value: string, em: number): number =>
	value === 'thin' ? 1 : value === 'medium' ? 3 : value === 'thick' ? 5 : (toPx(value, em) ?? 0);

/** A colour over another, as it shows. */
export const over = (top: Colour, below: Hex | undefined): Hex => mix(top.hex, below ?? PAPER, top.opacity);

export { BLACK };
