import { escapeXml } from '../../../core/escape.ts';
import type { Hex } from '../../../core/colour.ts';
import { fromPoints, fromTwips, toPoints, toTwips, type Emu } from '../../../core/units.ts';
import { type XmlNode } from '../../package/xml.ts';
import { readColour, readFont, type Theme } from '../theme.ts';
import { readShading, writeShading } from './shading.ts';

/** Run properties (w:rPr, ECMA-376 Part 1 §17.3.2) as far as a look has them. */
export interface TextLayer {
	family?: string;
	size?: Emu;
	ink?: Hex | 'auto';
	underline?: 'none' | 'single' | 'double';
	tracking?: Emu;
	/** The shading behind the words (§17.3.2.32). */
	behind?: Hex | 'none';
	/** Toggle properties (§17.7.3). */
	bold?: boolean;
	italic?: boolean;
	caps?: boolean;
	smallCaps?: boolean;
}

export const TOGGLES = ['bold', 'italic', 'caps', 'smallCaps'] as const;

/** CT_OnOff: present without a value is true. */
export function readOnOff(node: XmlNode | undefined): boolean | undefined {
	if (!node) return undefined;
	const value = node.attribute('w:val');
	return value === undefined || value === '1' || value === 'true' || value === 'on';
}

export function readText(rPr: XmlNode | undefined, theme: Theme): TextLayer {
	const layer: TextLayer = {};
	for (const node of rPr?.children ?? [])
		switch (node.name) {
			case 'w:rFonts': {
				const family = readFont(node, theme);
				if (family) layer.family = family;
				break;
			}
			case 'w:sz': {
				const half = Number(node.attribute('w:val'));
				if (half > 0) layer.size = fromPoints(half / 2);
				break;
			}
			case 'w:color': {
				const ink = readColour(node, 'val', theme);
				if (ink) layer.ink = ink;
				break;
			}
			case 'w:u': {
				const value = node.attribute('w:val') ?? 'none';
				layer.underline = value === 'none' ? 'none' : /double/i.test(value) ? 'double' : 'single';
				break;
			}
			case 'w:spacing':
				layer.tracking = fromTwips(Number(node.attribute('w:val') ?? 0) || 0);
				break;
			case 'w:shd':
				layer.behind = readShading(node, theme)!;
				break;
			case 'w:b':
				layer.bold = readOnOff(node)!;
				break;
			case 'w:i':
				layer.italic = readOnOff(node)!;
				break;
			case 'w:caps':
				layer.caps = readOnOff(node)!;
				break;
			case 'w:smallCaps':
				layer.smallCaps = readOnOff(node)!;
				break;
		}
	return layer;
}

/** The elements of w:rPr that carry a text look, by what they carry; those of complex scripts go along. */
export const TEXT_ELEMENTS: Record<keyof TextLayer, readonly string[]> = {
	family: ['w:rFonts'],
	size: ['w:sz', 'w:szCs'],
	ink: ['w:color'],
	underline: ['w:u'],
	tracking: ['w:spacing'],
	behind: ['w:shd'],
	bold: ['w:b', 'w:bCs'],
	italic: ['w:i', 'w:iCs'],
	caps: ['w:caps'],
	smallCaps: ['w:smallCaps']
};

/** Order of the children of w:rPr (CT_RPr as Part 4 and every consumer expect it). */
export const RUN_ORDER = (
	'rStyle rFonts b bCs i iCs caps smallCaps strike dstrike outline shadow emboss imprint noProof snapToGrid vanish webHidden color ' +
	'spacing w kern position sz szCs highlight u effect bdr shd fitText vertAlign rtl cs em lang eastAsianLayout specVanish oMath rPrChange'
)
	.split(' ')
	.map((name) => `w:${name}`);

const onOff = (name: string, on: boolean) => (on ? `<${name}/>` : `<${name} w:val="0"/>`);

/** The markup for a layer, by element name. */
export function writeText(layer: TextLayer): Map<string, string> {
	const out = new Map<string, string>();
	if (layer.family !== undefined) {
		const font = escapeXml(layer.family);
		out.set('w:rFonts', `<w:rFonts w:ascii="${font}" w:hAnsi="${font}" w:cs="${font}"/>`);
	}
	if (layer.bold !== undefined) for (const name of TEXT_ELEMENTS.bold) out.set(name, onOff(name, layer.bold));
	if (layer.italic !== undefined) for (const name of TEXT_ELEMENTS.italic) out.set(name, onOff(name, layer.italic));
	if (layer.caps !== undefined) out.set('w:caps', onOff('w:caps', layer.caps));
	if (layer.smallCaps !== undefined) out.set('w:smallCaps', onOff('w:smallCaps', layer.smallCaps));
	if (layer.ink !== undefined) out.set('w:color', `<w:color w:val="${layer.ink.replace('#', '')}"/>`);
	if (layer.tracking !== undefined) out.set('w:spacing', `<w:spacing w:val="${toTwips(layer.tracking)}"/>`);
	if (layer.size !== undefined)
		for (const name of TEXT_ELEMENTS.size)
			out.set(name, `<${name} w:val="${Math.max(1, Math.round(toPoints(layer.size) * 2))}"/>`);
	if (layer.behind !== undefined) out.set('w:shd', writeShading(layer.behind));
	if (layer.underline !== undefined) out.set('w:u', `<w:u w:val="${layer.underline}"/>`);
	return out;
}
