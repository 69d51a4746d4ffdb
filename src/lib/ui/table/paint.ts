import type { Line, Look } from '$lib/core/cascade/look.ts';
import { DEFAULT_FAMILY, DEFAULT_SIZE, DEFAULT_WEIGHT, LEADING } from '$lib/core/properties/defaults.ts';
import type { Shadow } from '$lib/core/properties/shadow.ts';
import { standIn } from '$lib/core/layout/fonts.ts';
import { toPixels, type Emu } from '$lib/core/units.ts';

const px = (length: Emu | number, zoom: number) => `${Number((toPixels(length as Emu) * zoom).toFixed(3))}px`;
/** Families for letters that the asked one lacks. */
export const OTHER_SCRIPTS = "'Noto Sans Hebrew','Noto Sans Arabic'";
const ALIGN = { start: 'start', middle: 'center', end: 'end', justify: 'justify', decimal: 'end' } as const;
const PLACE = { top: 'start', middle: 'center', bottom: 'end' } as const;
const CASE = {
	none: '',
	upper: 'text-transform:uppercase;',
	lower: 'text-transform:lowercase;',
	title: 'text-transform:capitalize;',
	'small-caps': 'font-variant-caps:small-caps;'
};
const UNDERLINE = { none: '', single: 'text-decoration:underline;', double: 'text-decoration:underline double;' };

/** A shadow as CSS. */
export const shadowCss = ({ x, y, blur, ink }: Shadow, zoom: number): string =>
	`${px(x, zoom)} ${px(y, zoom)} ${px(blur, zoom)} ${ink}`;

/** A cell's look as inline style; `isRight`: its table starts at the right. Everything that a look can say is said here, and nowhere else. */
export function cellStyle(look: Look, zoom: number, isRight = false): string {
	const [start, end] = [look.marginStart, look.marginEnd];
	// Left and right: what starts and ends goes another way in text that is turned.
	const margins = [look.marginTop, isRight ? start : end, look.marginBottom, isRight ? end : start]
		.map((margin) => px(margin ?? 0, zoom))
		.join(' ');
	return (
		(look.fill && look.fill !== 'none' ? `background-color:${look.fill};` : '') +
		`color:${look.ink ?? '#000000'};font-family:'${standIn(look.family ?? DEFAULT_FAMILY)}',${OTHER_SCRIPTS};font-size:${px(look.size ?? DEFAULT_SIZE, zoom)};` +
		`font-weight:${look.weight ?? DEFAULT_WEIGHT};font-style:${look.italic ? 'italic' : 'normal'};` +
		UNDERLINE[look.underline ?? 'none'] +
		CASE[look.case ?? 'none'] +
		(look.tracking ? `letter-spacing:${px(look.tracking, zoom)};` : '') +
		(look.textShadow ? `text-shadow:${shadowCss(look.textShadow, zoom)};` : '') +
		(look.paragraphGap ? `--paragraph-gap:${px(look.paragraphGap, zoom)};` : '') +
		`line-height:${(LEADING * (look.lineHeight ?? 1)).toFixed(3)};text-align:${ALIGN[look.h ?? 'start']};align-content:${PLACE[look.v ?? 'top']};padding:${margins};` +
		(look.rotate ? `writing-mode:vertical-rl;${look.rotate === 270 ? 'rotate:180deg;' : ''}` : '') +
		diagonals(look, zoom)
	);
}

const DASHES: Partial<Record<Line['pattern'], string>> = { dashed: '3 2', dotted: '1 1', 'dash-dot': '3 2 1 2' };

/** The diagonals of a cell as its background: strokes that keep their weight whatever the cell's size. */
function diagonals({ diagonalDown, diagonalUp }: Look, zoom: number): string {
	const stroke = (line: Line | null | undefined, path: string) => {
		if (!line || line.pattern === 'none') return '';
		const width = Math.max(0.75, toPixels(line.weight) * zoom);
		const dashes = DASHES[line.pattern]
			?.split(' ')
			.map((length) => Number(length) * width)
			.join(' ');
		return `<path d='${path}' fill='none' stroke='${line.ink}' stroke-width='${width.toFixed(2)}' vector-effect='non-scaling-stroke'${dashes ? ` stroke-dasharray='${dashes}'` : ''}/>`;
	};
	const paths = stroke(diagonalDown, 'M0 0L100 100') + stroke(diagonalUp, 'M0 100L100 0');
	if (!paths) return '';
	const picture = `<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 100 100' preserveAspectRatio='none'>${paths}</svg>`;
	return `background-image:url("data:image/svg+xml,${encodeURIComponent(picture)}");background-size:100% 100%;`;
}

const wave = (ink: string) =>
	`url("data:image/svg+xml,${encodeURIComponent(`<svg xmlns='http://www.w3.org/2000/svg' width='6' height='3' viewBox='0 0 6 3'><path d='M0 1.5Q1.5 0 3 1.5T6 1.5' fill='none' stroke='${ink}' stroke-width='.8'/></svg>`)}")`;

/** A line as inline style of a box as long as the line; `along` is the direction it runs in. */
export function lineStyle({ pattern, weight, ink }: Line, along: 'across' | 'down', zoom: number): string {
	const thick = Math.max(0.75, toPixels(weight) * zoom);
	const isAcross = along === 'across';
	const extent = (size: number) => `${isAcross ? 'height' : 'width'}:${size.toFixed(2)}px;`;
	const to = isAcross ? 'right' : 'bottom';
	const turn = isAcross ? 'bottom' : 'right';
	switch (pattern) {
		case 'none':
			return 'display:none;';
		case 'solid':
			return `${extent(thick)}background:${ink};`;
		case 'double':
		case 'triple': {
			const size = Math.max(pattern === 'double' ? 3 : 5, thick);
			const parts = pattern === 'double' ? 3 : 5;
			const stops = Array.from(
				{ length: parts },
				(_, i) => `${i % 2 ? 'transparent' : ink} ${(i * 100) / parts}% ${((i + 1) * 100) / parts}%`
			);
			return `${extent(size)}background:linear-gradient(to ${turn},${stops.join(',')});`;
		}
		case 'wavy':
			return `${extent(Math.max(3, thick))}background:${wave(ink)} ${isAcross ? 'repeat-x' : 'repeat-y'} center;`;
		case 'dashed':
		case 'dotted':
		case 'dash-dot': {
			const unit = Math.max(1, thick);
			const [dash, gap] = pattern === 'dotted' ? [unit, unit] : [unit * 3, unit * 2];
			const stops =
				pattern === 'dash-dot'
					? `${ink} 0 ${dash}px,transparent ${dash}px ${dash + gap}px,${ink} ${dash + gap}px ${dash + gap + unit}px,transparent ${dash + gap + unit}px ${dash + 2 * gap + unit}px`
					: `${ink} 0 ${dash}px,transparent ${dash}px ${dash + gap}px`;
			return `${extent(thick)}background:repeating-linear-gradient(to ${to},${stops});`;
		}
	}
}
