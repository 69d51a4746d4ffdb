import type { Look } from '../../../core/properties/index.ts';
import type { Computed, PageStyles } from '../cascade.ts';
import { toPx } from '../css.ts';
import { parentOf, type Element } from '../dom.ts';
import { inkOf } from './fill.ts';
import { fromPx, LINE, pt, sizeOf, type HtmlFields } from './property.ts';

/** The weight a computed value stands for; `bolder` and `lighter` by what they stand in (CSS Fonts 4 §2.2.1). */
export function weightOf(element: Element, styles: PageStyles): number {
	const value = styles.computed(element).get('font-weight') ?? '400';
	if (value === 'bold') return 700;
	if (value === 'normal') return 400;
	if (value !== 'bolder' && value !== 'lighter') return Number(value) || 400;
	// An inherited `bolder` belongs to the element that first said it.
	let said = element;
	for (let up = parentOf(said); up && styles.computed(up).get('font-weight') === value; up = parentOf(up)) said = up;
	const parent = parentOf(said);
	const outer = parent ? weightOf(parent, styles) : 400;
	return value === 'bolder' ? (outer < 600 ? 700 : 900) : outer < 600 ? 100 : outer < 800 ? 400 : 700;
}

export const underlineOf = (computed: Computed): 'none' | 'single' | 'double' =>
	/underline/.test(computed.get('text-decoration-line') ?? '')
		? computed.get('text-decoration-style') === 'double'
			? 'double'
			: 'single'
		: 'none';

const quoted = (family: string) => `'${family.replace(/['\\\n]/g, '')}'`;
const CASES: Record<string, Look['case']> = { uppercase: 'upper', lowercase: 'lower', capitalize: 'title' };
const TRANSFORM = { none: 'none', upper: 'uppercase', lower: 'lowercase', title: 'capitalize', 'small-caps': 'none' };
const DECORATION = { none: 'none', single: 'underline', double: 'underline double' };
/** CSS line heights are written with three decimals. */
const cssLineHeight = (factor: number): number => Number((factor * LINE).toFixed(3));

export const TEXT: HtmlFields<
	'family' | 'size' | 'weight' | 'italic' | 'underline' | 'case' | 'tracking' | 'lineHeight' | 'ink'
> = {
	family: {
		read({ computed }) {
			const [first] = computed.get('font-family')?.split(',') ?? [];
			return first?.trim().replace(/^["']|["']$/g, '') || undefined;
		},
		declare: (family) => [`font-family: ${quoted(family)}`]
	},
	size: {
		read: ({ computed }) => fromPx(sizeOf(computed)),
		declare: (size) => [`font-size: ${pt(size)}`]
	},
	weight: {
		read: ({ element, styles }) => weightOf(element, styles),
		declare: (weight) => [`font-weight: ${weight}`]
	},
	italic: {
		read: ({ computed }) => /italic|oblique/.test(computed.get('font-style') ?? ''),
		declare: (italic) => [`font-style: ${italic ? 'italic' : 'normal'}`]
	},
	underline: {
		read: ({ computed }) => underlineOf(computed),
		declare: (underline) => [`text-decoration: ${DECORATION[underline]}`]
	},
	case: {
		read: ({ computed }) =>
			computed.get('font-variant-caps') === 'small-caps'
				? 'small-caps'
				: (CASES[computed.get('text-transform') ?? ''] ?? 'none'),
		declare: (letters) => [
			`text-transform: ${TRANSFORM[letters]}`,
			`font-variant-caps: ${letters === 'small-caps' ? 'small-caps' : 'normal'}`
		]
	},
	tracking: {
		read({ computed }) {
			const tracking = computed.get('letter-spacing');
			return fromPx(tracking && tracking !== 'normal' ? (toPx(tracking, sizeOf(computed)) ?? 0) : 0);
		},
		declare: (tracking) => [`letter-spacing: ${pt(tracking)}`]
	},
	lineHeight: {
		read({ computed }) {
			const value = computed.get('line-height');
			if (value === undefined || value === 'normal') return undefined;
			const size = sizeOf(computed);
			const plain = Number(value);
			const factor = Number.isFinite(plain) ? plain : (toPx(value, size, size) ?? 0) / size;
			return factor > 0 ? factor / LINE : undefined;
		},
		nearest: (factor) => cssLineHeight(factor) / LINE,
		declare: (factor) => [`line-height: ${cssLineHeight(factor)}`]
	},
	ink: {
		read: ({ computed }) => inkOf(computed),
		declare: (ink) => [`color: ${ink.toLowerCase()}`]
	}
};
