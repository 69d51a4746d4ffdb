import DOMPurify from 'dompurify';
import type { Matrix } from '$lib/core/layout/matrix.ts';

const SVG = 'http://www.w3.org/2000/svg';

/** Pixels of the page for a millimetre of paper where nothing is zoomed. */
export const BASE = 4;

const INSIDE = /^(?:#|data:image\/(?:png|jpeg|gif|webp);base64,)/i;
if (DOMPurify.isSupported)
	DOMPurify.addHook('uponSanitizeAttribute', (_, data) => {
		if (/^(?:xlink:)?href$/.test(data.attrName) && !INSIDE.test(data.attrValue)) data.keepAttr = false;
	});

/** Markup as an element, and its style sheets. */
export interface Parsed {
	readonly root: SVGSVGElement;
	readonly sheets: readonly CSSStyleSheet[];
}

const STYLE = /<(?:[\w-]+:)?style\b([^>]*?)(?:\/>|>([^]*?)<\/(?:[\w-]+:)?style\s*>)/g;
const ENTITIES: Readonly<Record<string, string>> = {
	'&lt;': '<',
	'&gt;': '>',
	'&quot;': '"',
	'&apos;': "'",
	'&amp;': '&'
};

/** Takes the style sheets out of markup: a page lets none in that is written into it, not even into a tree that is not shown yet. */
function parse(markup: string): Parsed {
	const sheets: CSSStyleSheet[] = [];
	const rest = markup.replace(STYLE, (_, attributes: string, text = '') => {
		const made = new CSSStyleSheet({ media: /media\s*=\s*["']([^"']*)/.exec(attributes)?.[1] ?? '' });
		made.replaceSync(
			(text as string)
				.replace(/<!\[CDATA\[|\]\]>/g, '')
				.replace(/&(?:lt|gt|quot|apos|amp);/g, (entity) => ENTITIES[entity]!)
		);
		sheets.push(made);
		return '';
	});
	const root = new DOMParser().parseFromString(rest, 'image/svg+xml').documentElement as unknown as SVGSVGElement;
	return { root, sheets };
}

/**
 * The drawing as an element, sanitised once more in the browser by a library that is made for it. Throws Error where the
 * text is no drawing.
 */
export function drawingFrom(text: string): Parsed {
	const { root, sheets } = parse(text);
	if (root.localName !== 'svg') throw new Error('The drawing cannot be shown: it is not well-formed.');
	DOMPurify.sanitize(root as unknown as HTMLElement, {
		IN_PLACE: true,
		USE_PROFILES: { svg: true, svgFilters: true },
		ADD_TAGS: ['use'],
		ADD_ATTR: ['href', 'xlink:href'],
		// No scheme but that of pictures in the file; everything else in an attribute is no address.
		ALLOWED_URI_REGEXP: /^(?:data:image\/(?:png|jpeg|gif|webp);base64,|[^a-z]|[a-z+.-]+(?:[^a-z+.\-:]|$))/i,
		NAMESPACE: SVG
	});
	return { root, sheets };
}

/** Gives a drawing's root the size of its sheet, so that its units fall on the sheet's millimetres. */
export function fitToSheet(
	root: SVGSVGElement,
	{ width, height, toUnits }: { width: number; height: number; toUnits: Matrix }
): void {
	const [a, , , d, e, f] = toUnits;
	root.setAttribute('viewBox', [e, f, width * a, height * d].join(' '));
	root.setAttribute('preserveAspectRatio', 'none');
	root.setAttribute('width', String(width * BASE));
	root.setAttribute('height', String(height * BASE));
	root.setAttribute('aria-hidden', 'true');
}

/** Tables as an element of their own, over the drawing; `toPaper` leads from the drawing's units to millimetres. */
export function tablesElement(
	tables: readonly { readonly id: string; readonly markup: string; readonly draft: boolean }[],
	{ width, height, toPaper }: { width: number; height: number; toPaper: Matrix }
): Parsed {
	const groups = tables.map(
		({ markup, draft }) =>
			`<g${draft ? ' data-draft="true"' : ''} transform="matrix(${toPaper.join(' ')})">${markup}</g>`
	);
	const text = `<svg xmlns="${SVG}" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 ${width} ${height}" width="${width * BASE}" height="${height * BASE}" style="position:absolute;inset:0;overflow:visible">${groups.join('')}</svg>`;
	return parse(text);
}

/** Round numbers that ruler marks stand at: about `apart` pixels from each other at `scale` pixels a millimetre. */
export function rulerStep(scale: number, apart = 60): number {
	const least = apart / scale;
	const power = 10 ** Math.floor(Math.log10(least));
	return [1, 2, 5, 10].map((factor) => factor * power).find((step) => step >= least)!;
}
