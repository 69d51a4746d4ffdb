import type { Format } from '../format.ts';
import { svg as about } from './about.ts';
import { readSvg, type SvgDocument } from './read.ts';
import { writeSvg } from './write.ts';

/** The first element is a drawing; a page can begin with one, too, and then its ending decides. */
const FIRST_IS_SVG =
	/^\s*(?:<\?[^>]*\?>\s*|<!--[^]*?-->\s*|<!DOCTYPE\s+svg[^>[]*(?:\[[^\]]*\])?[^>]*>\s*)*<(?:[\w.-]+:)?svg[\s>]/i;

export const svg: Format<SvgDocument> = {
	...about,
	sniff: ({ text, latin1 }, isNamed) => {
		if (FIRST_IS_SVG.test(text)) return /^\s*<\?xml/.test(text) ? 8 : 3;
		return isNamed && /<(?:[\w.-]+:)?svg[\s>]/.test(latin1) && !/<html[\s>]/i.test(latin1) ? 8 : 0;
	},
	open: readSvg,
	write: writeSvg,
	whyNot: (isPart) =>
		isPart
			? 'Tables of a drawing go out alone as DOCX, ODT, HTML, PDF, CSV or JSON; as SVG the whole drawing does.'
			: 'Only a drawing goes out as SVG. Place the table on a sheet to have it in one.'
};
