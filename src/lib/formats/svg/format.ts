import type { Format } from '../format.ts';
import { svg as about } from './about.ts';
import { readSvg, type SvgDocument } from './read.ts';
import { writeSvg } from './write.ts';

export const svg: Format<SvgDocument> = {
	...about,
	sniff: ({ latin1 }) => (/<(?:\w+:)?svg[\s>]/.test(latin1) && !/<html[\s>]/i.test(latin1) ? 8 : 0),
	open: readSvg,
	write: writeSvg,
	whyNot: (isPart) =>
		isPart
			? 'Tables of a drawing go out alone as DOCX, ODT, HTML, PDF, CSV or JSON; as SVG the whole drawing does.'
			: 'Only a drawing goes out as SVG. Place the table on a sheet to have it in one.'
};
