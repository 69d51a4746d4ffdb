import { canonicalStyle } from '../../core/style/canonical.ts';
import { selfContained } from '../../core/style/export.ts';
import { tableToFile } from '../../core/table/file.ts';
import { withFigures } from '../../core/work/file.ts';
import type { OpenDocument } from '../document.ts';
import { givesStyle, prepare, type StyleJob, type WriteOptions } from '../job.ts';
import { allLooks, plainAccount } from '../plain.ts';
import type { Written } from '../tally.ts';

/** Tables as table files, one alone or a list, with the styles that they wear and all that the bench knows of them. */
export function writeJson(
	document: OpenDocument,
	jobs: readonly StyleJob[],
	options: WriteOptions,
	order: readonly number[]
): Written {
	const wearing = new Map(jobs.map((job) => [job.index, job]));
	const tables = order.map((index) => {
		const { table, place, work } = document.tables[index]!;
		const job = wearing.get(index);
		const style = job && givesStyle(job) ? selfContained(job.style, options.house, options.find) : undefined;
		const file = tableToFile(job?.table ?? table, {
			number: index + 1,
			place,
			wears: style?.name ?? null,
			...(place.caption && { title: place.caption }),
			...(style && { style: canonicalStyle(style) }),
			...(work && { work })
		});
		return work ? withFigures(file, work) : file;
	});
	return {
		bytes: new TextEncoder().encode(
			JSON.stringify(tables.length === 1 && document.kind === 'json' ? tables[0] : tables, null, 2)
		),
		account: plainAccount(document, prepare(document, jobs, options), allLooks)
	};
}
