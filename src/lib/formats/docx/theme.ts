import { converter, formatHex } from 'culori';
import { toHex, type Hex } from '../../core/colour.ts';
import { descendants, type XmlNode } from '../package/xml.ts';

/** Colours and fonts that a document names by role (DrawingML theme, ECMA-376 Part 1 §20.1.6). */
export interface Theme {
	readonly colours: ReadonlyMap<string, Hex>;
	readonly major?: string;
	readonly minor?: string;
}

export const NO_THEME: Theme = { colours: new Map() };

export function readTheme(root: XmlNode): Theme {
	const colours = new Map<string, Hex>();
	const [scheme] = descendants(root, 'a:clrScheme');
	for (const slot of scheme?.children ?? []) {
		const colour = slot.children[0];
		const hex = toHex(
			'#' + (colour?.attribute('val')?.length === 6 ? colour.attribute('val') : (colour?.attribute('lastClr') ?? ''))
		);
		if (hex) colours.set(slot.name.slice(2), hex);
	}
	const [fonts] = descendants(root, 'a:fontScheme');
	return {
		colours,
		major: fonts?.at('a:majorFont', 'a:latin')?.attribute('typeface') || undefined,
		minor: fonts?.at('a:minorFont', 'a:latin')?.attribute('typeface') || undefined
	};
}

/** ST_ThemeColor (§17.18.97) → the slot of the scheme, by the usual mapping of text and background. */
const SLOTS: Record<string, string> = {
	text1: 'dk1',
	dark1: 'dk1',
	text2: 'dk2',
	dark2: 'dk2',
	background1: 'lt1',
	light1: 'lt1',
	background2: 'lt2',
	light2: 'lt2',
	hyperlink: 'hlink',
	followedHyperlink: 'folHlink'
};

const toHsl = converter('hsl');

/** A theme colour with its tint or shade (hex bytes), which move its HSL lightness. */
function themeColour(theme: Theme, name: string, tint?: string, shade?: string): Hex | undefined {
	const base = theme.colours.get(SLOTS[name] ?? name);
	if (!base) return undefined;
	const hsl = toHsl(base)!;
	if (shade) hsl.l *= parseInt(shade, 16) / 255;
	if (tint) hsl.l = hsl.l * (parseInt(tint, 16) / 255) + 1 - parseInt(tint, 16) / 255;
	return formatHex(hsl).toUpperCase() as Hex;
}

/** The colour that a node states in `w:<attribute>` and its theme attributes; 'auto', or undefined where it states none. */
export function readColour(node: XmlNode, attribute: 'val' | 'color' | 'fill', theme: Theme): Hex | 'auto' | undefined {
	const prefix = attribute === 'fill' ? 'w:themeFill' : 'w:theme';
	const named = node.attribute(attribute === 'fill' ? 'w:themeFill' : 'w:themeColor');
	const themed = named && themeColour(theme, named, node.attribute(`${prefix}Tint`), node.attribute(`${prefix}Shade`));
	if (themed) return themed;
	const value = node.attribute(`w:${attribute}`);
	if (value === undefined) return undefined;
	return value === 'auto' ? 'auto' : toHex('#' + value);
}

export function readFont(node: XmlNode, theme: Theme): string | undefined {
	const themed = node.attribute('w:asciiTheme') ?? node.attribute('w:hAnsiTheme');
	if (themed) {
		const font = themed.startsWith('major') ? theme.major : theme.minor;
		if (font) return font;
	}
	return node.attribute('w:ascii') ?? node.attribute('w:hAnsi');
}
