import { madeAndStyled, partOf } from '../anew.ts';
import type { Format } from '../format.ts';
import { odt as about } from './about.ts';
import { makeOdt } from './make.ts';
import { readOdt, type OdtDocument } from './read.ts';
import { rewriteRowsOdt } from './rewrite-rows.ts';
import { writeOdt } from './write.ts';

export const odt: Format<OdtDocument> = {
	...about,
	brings: true,
	sniff({ isPackage, latin1 }, isNamed) {
		if (isPackage) return isNamed || /application\/vnd\.oasis\.opendocument/.test(latin1) ? 9 : 0;
		return /<office:document\b|urn:oasis:names:tc:opendocument/.test(latin1) ? 8 : 0;
	},
	open: readOdt,
	write: writeOdt,
	make: async (making) => madeAndStyled(odt, making, await makeOdt(partOf(making, about.kind))),
	rewriteRows: rewriteRowsOdt
};
