import type { Look } from '../../../core/properties/index.ts';
import { emu } from '../../../core/units.ts';
import { colour } from './fill.ts';
import { pt, toEmu, type Attributes, type OdtTextFields } from './property.ts';

const CASES: Record<string, Look['case']> = { uppercase: 'upper', lowercase: 'lower', capitalize: 'title' };
const TRANSFORM = { none: 'none', upper: 'uppercase', lower: 'lowercase', title: 'capitalize', 'small-caps': 'none' };
const hundreds = (weight: number) => Math.min(900, Math.max(100, Math.round(weight / 100) * 100));

/** What is said of text in Western scripts, of that in Asian and of that in complex ones (ODF 1.3 Part 3 §20.284). */
const inAllScripts = (name: string, value: string): Attributes => ({
	[`fo:${name}`]: value,
	[`style:${name}-asian`]: value,
	[`style:${name}-complex`]: value
});

/** `style:text-properties` (ODF 1.3 Part 3 §17.23, §20). */
export const TEXT: OdtTextFields<'family' | 'size' | 'weight' | 'italic' | 'underline' | 'case' | 'tracking' | 'ink'> =
	{
		family: {
			element: 'text',
			owns: /^(style:font-name|fo:font-family|style:font-family-generic|style:font-pitch|style:font-charset|style:font-style-name)$/,
			readText: ({ properties, styles }) => styles.fontFamily(properties) || undefined,
			attributes: (family, font) => ({ 'style:font-name': font(family) })
		},
		size: {
			element: 'text',
			owns: /^(fo:font-size|style:font-size(-rel)?(-asian|-complex)?)$/,
			readText: ({ properties, inherited }) => toEmu(properties.get('fo:font-size'), inherited) ?? inherited,
			attributes: (size) => inAllScripts('font-size', pt(size))
		},
		weight: {
			element: 'text',
			owns: /^(fo:font-weight|style:font-weight-(asian|complex))$/,
			nearest: hundreds,
			readText({ properties }) {
				const weight = properties.get('fo:font-weight');
				return weight === 'bold' ? 700 : Number(weight) || 400;
			},
			attributes(weight) {
				const said = hundreds(weight);
				return inAllScripts('font-weight', said === 400 ? 'normal' : said === 700 ? 'bold' : String(said));
			}
		},
		italic: {
			element: 'text',
			owns: /^(fo:font-style|style:font-style-(asian|complex))$/,
			readText: ({ properties }) => /italic|oblique/.test(properties.get('fo:font-style') ?? ''),
			attributes: (italic) => inAllScripts('font-style', italic ? 'italic' : 'normal')
		},
		underline: {
			element: 'text',
			owns: /^style:text-underline-/,
			readText({ properties }) {
				const style = properties.get('style:text-underline-style') ?? 'none';
				if (style === 'none') return 'none';
				return properties.get('style:text-underline-type') === 'double' ? 'double' : 'single';
			},
			attributes: (underline): Attributes =>
				underline === 'none'
					? { 'style:text-underline-style': 'none' }
					: {
							'style:text-underline-style': 'solid',
							'style:text-underline-type': underline,
							'style:text-underline-width': 'auto',
							'style:text-underline-color': 'font-color'
						}
		},
		case: {
			element: 'text',
			owns: /^(fo:text-transform|fo:font-variant)$/,
			readText: ({ properties }) =>
				properties.get('fo:font-variant') === 'small-caps'
					? 'small-caps'
					: (CASES[properties.get('fo:text-transform') ?? ''] ?? 'none'),
			attributes: (letters) => ({
				'fo:text-transform': TRANSFORM[letters],
				'fo:font-variant': letters === 'small-caps' ? 'small-caps' : 'normal'
			})
		},
		tracking: {
			element: 'text',
			owns: /^fo:letter-spacing$/,
			readText({ properties }) {
				const tracking = properties.get('fo:letter-spacing');
				return (tracking === 'normal' ? undefined : toEmu(tracking)) ?? emu(0);
			},
			attributes: (tracking) => ({ 'fo:letter-spacing': tracking === 0 ? 'normal' : pt(tracking) })
		},
		ink: {
			element: 'text',
			owns: /^(fo:color|style:use-window-font-color)$/,
			readText({ properties }) {
				const isWindow = properties.get('style:use-window-font-color') === 'true';
				const ink = isWindow ? undefined : colour(properties.get('fo:color'));
				return ink === undefined || ink === 'none' ? '#000000' : ink;
			},
			attributes: (ink) => ({ 'fo:color': ink.toLowerCase(), 'style:use-window-font-color': 'false' })
		}
	};
