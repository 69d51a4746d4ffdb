import { partOf } from '../anew.ts';
import type { Format } from '../format.ts';
import { prepare } from '../job.ts';
import { allLooks, plainAccount } from '../plain.ts';
import { writeSheetPdf } from '../svg/pdf.ts';
import { isDrawing } from '../svg/read.ts';
import { pdf as about } from './about.ts';
import { reportOf } from './report.ts';
import { writePdf } from './write.ts';

export const pdf: Format = {
	...about,
	brings: true,
	leaves: ['hidden'],
	async make(making) {
		const { document, jobs, options } = making;
		const part = partOf(making, about.kind);
		const prepared = prepare(document, jobs, options);
		const { bytes, remarks } =
			isDrawing(document) && !options.only
				? await writeSheetPdf(document, prepared, options.title)
				: await writePdf(reportOf(part, prepared, options));
		return { bytes, account: plainAccount(document, prepared, allLooks, remarks) };
	}
};
