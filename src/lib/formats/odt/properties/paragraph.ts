import type { Look } from '../../../core/properties/index.ts';
import type { Emu } from '../../../core/units.ts';
import { acrossFrom } from '../../sides.ts';
import { startsElsewhere } from '../direction.ts';
import type { Properties } from '../styles.ts';
import { pt, toEmu, type Attributes, type OdtCellFields } from './property.ts';

const H: Record<string, Look['h']> = {
	start: 'start',
	left: 'start',
	center: 'middle',
	end: 'end',
	right: 'end',
	justify: 'justify'
};
const SAID = { start: 'start', middle: 'center', end: 'end', justify: 'justify', decimal: 'end' } as const;
const percent = (factor: number): number => Number((factor * 100).toFixed(2));

const margin = (properties: Properties, side: 'top' | 'bottom'): Emu =>
	toEmu(properties.get(`fo:margin-${side}`) ?? properties.get('fo:margin')) ?? (0 as Emu);

/** What the paragraphs of a cell say of the space between them: the first, and those that follow it. */
export const gapAttributes = (gap: Emu, isFirst: boolean): Attributes => ({
	'fo:margin-top': pt(isFirst ? (0 as Emu) : gap),
	'fo:margin-bottom': '0pt'
});

/** `style:paragraph-properties` (ODF 1.3 Part 3 §17.6). */
export const PARAGRAPH: OdtCellFields<'h' | 'lineHeight' | 'paragraphGap'> = {
	h: {
		element: 'paragraph',
		owns: /^(fo:text-align|style:justify-single-word)$/,
		nearest: (h) => (h === 'decimal' ? 'end' : h),
		isFar: (h) => h === 'decimal',
		cannot: 'decimal alignment',
		read({ paragraph, isRight }) {
			const said = paragraph.get('fo:text-align') ?? 'start';
			const isSide = said === 'left' || said === 'right';
			return acrossFrom(H[said] ?? 'start', isSide ? isRight : startsElsewhere(paragraph, isRight));
		},
		attributes: (h) => ({ 'fo:text-align': SAID[h] })
	},
	lineHeight: {
		element: 'paragraph',
		owns: /^(fo:line-height|style:line-height-at-least)$/,
		nearest: (factor) => percent(factor) / 100,
		read({ paragraph }) {
			const said = /^([\d.]+)%$/.exec(paragraph.get('fo:line-height') ?? '')?.[1];
			return said === undefined ? undefined : Number(said) / 100;
		},
		attributes: (factor) => ({ 'fo:line-height': `${percent(factor)}%` })
	},
	paragraphGap: {
		element: 'paragraph',
		// Taken away only where a style says the space: see gapAttributes.
		owns: /^$/,
		/** The larger of the two margins that meet. */
		read({ paragraphs: [first, second] }) {
			if (!first || !second) return undefined;
			return Math.max(margin(first, 'bottom'), margin(second, 'top')) as Emu;
		},
		// Each paragraph says its own.
		attributes: () => ({})
	}
};
