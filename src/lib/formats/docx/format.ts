import { madeAndStyled, partOf } from '../anew.ts';
import type { Format } from '../format.ts';
import { docx as about } from './about.ts';
import { makeDocx } from './make.ts';
import { readDocx, type DocxDocument } from './read.ts';
import { rewriteRowsDocx } from './rewrite-rows.ts';
import { writeDocx } from './write.ts';

export const docx: Format<DocxDocument> = {
	...about,
	brings: true,
	// Any other package, and the older binary format, which its reader refuses by name.
	sniff: ({ isPackage, bytes }) => (isPackage || (bytes[0] === 0xd0 && bytes[1] === 0xcf) ? 7 : 0),
	open: readDocx,
	write: writeDocx,
	make: async (making) => madeAndStyled(docx, making, await makeDocx(partOf(making, about.kind))),
	rewriteRows: rewriteRowsDocx
};
