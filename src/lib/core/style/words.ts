import type { LeafValue, LinePlace } from './types.ts';

const WORDS: Record<string, string> = {
	'fill.ink': 'fill',
	'fill.tint': 'fill tint',
	'fill.opacity': 'fill opacity',
	'text.role': 'type role',
	'text.family': 'family',
	'text.size': 'size',
	'text.weight': 'weight',
	'text.italic': 'slant',
	'text.underline': 'underline',
	'text.case': 'case',
	'text.tracking': 'tracking',
	'text.lineHeight': 'line height',
	'text.ink': 'ink',
	'align.h': 'alignment across',
	'align.v': 'alignment down',
	rotate: 'rotation',
	'margin.top': 'margin above',
	'margin.end': 'margin after',
	'margin.bottom': 'margin below',
	'margin.start': 'margin before',
	'format.kind': 'format',
	'keep.together': 'keep together',
	'keep.withNext': 'keep with next',
	'keep.repeat': 'repeat on each page'
};

const PLACES: Record<string, string> = {
	top: 'line above',
	bottom: 'line below',
	start: 'line before',
	end: 'line after',
	betweenRows: 'lines between rows',
	betweenColumns: 'lines between columns',
	diagonalDown: 'diagonal down',
	diagonalUp: 'diagonal up'
};

const SHORT_PLACES: Record<LinePlace, string> = {
	top: 'above',
	bottom: 'below',
	start: 'before',
	end: 'after',
	betweenRows: 'between rows',
	betweenColumns: 'between columns',
	diagonalDown: 'diagonal down',
	diagonalUp: 'diagonal up'
};

/** Where a line of a part runs: "above", "between rows". */
export const linePlaceWords = (place: LinePlace): string => SHORT_PLACES[place];

/** A leaf as people read it: "fill", "line above, weight". */
export function leafWords(path: string): string {
	const [group, place, property] = path.split('.') as [string, string?, string?];
	if (group === 'lines') return property === 'pattern' ? PLACES[place!]! : `${PLACES[place!]}, ${property}`;
	return WORDS[path] ?? path.replace('.', ' ');
}

/** A leaf's value as people read it: 8 %, "italic", "1.5pt". */
export function valueWords(path: string, value: LeafValue): string {
	if (path === 'fill.tint' || path === 'fill.opacity') return `${Math.round(Number(value) * 100)} %`;
	if (path === 'text.italic') return value ? 'italic' : 'upright';
	if (typeof value === 'boolean') return value ? 'yes' : 'no';
	if (path === 'rotate') return `${value}°`;
	return String(value);
}

/** Line widths of ISO 128-2 (§6.1), as lengths. */
export const ISO_WEIGHTS = ['0.13mm', '0.18mm', '0.25mm', '0.35mm', '0.5mm', '0.7mm', '1mm', '1.4mm', '2mm'] as const;
