import type { WorkTable } from '../core/work/table.ts';
import type { DocumentTable } from './document.ts';
import { formatOf, type AnyDocument } from './formats.ts';
import { goneWith, indicesAfter, type RowRewriting } from './row-cells.ts';
import { newEntry, worked } from './work.ts';

/**
 * A document in which some tables are as they were worked on, with new ones, and without those that are `gone`, by the
 * index that they have in the file. In a file that holds more than tables
 * their markup is made anew and all else stays; the document is then what is read from that file. Works are by the
 * index that tables have now; the new ones are among them.
 */
export async function applyWorks(
	document: AnyDocument,
	works: ReadonlyMap<number, WorkTable>,
	added: readonly { readonly after: number }[] = [],
	gone: readonly number[] = []
): Promise<AnyDocument> {
	const format = formatOf(document);
	if (format.rework) return format.rework(document, works, gone) as AnyDocument;
	if (!format.rewriteRows) return document;
	const allGone = goneWith(document.tables, gone);
	const { of, moved } = indicesAfter(document, added, allGone);
	const rewriting: RowRewriting = {
		works: new Map(
			document.tables.flatMap(({ index }) => {
				const own = works.get(moved(index) ?? -1);
				return own ? [[index, own] as const] : [];
			})
		),
		added: added.flatMap(({ after }, i) => {
			const work = works.get(of[i]!);
			return work ? [{ after, entry: newEntry(work, of[i]!) }] : [];
		}),
		gone: allGone
	};
	const again = await withRowsRewritten(document, rewriting);
	const known = (tables: readonly DocumentTable[]) =>
		tables.map((entry) => {
			const own = works.get(entry.index);
			return own ? worked(entry, own) : entry;
		});
	const { whole } = again;
	return {
		...again,
		tables: known(again.tables),
		...(whole && {
			async whole() {
				const all = await whole();
				return { ...all, tables: known(all.tables) };
			}
		})
	};
}

/** Reads a document again after its tables were made anew: tables inside cells of others after those. */
async function withRowsRewritten(document: AnyDocument, { works, added, gone }: RowRewriting): Promise<AnyDocument> {
	const isNested = (index: number) => document.tables[index]!.place.where === 'nested';
	const outer = new Map([...works].filter(([index]) => !isNested(index)));
	let now = document;
	if (outer.size || added.length || gone.size) now = await rewrittenOnce(now, { works: outer, added, gone });
	const { moved } = indicesAfter(document, added, gone);
	for (const [index, work] of works)
		if (isNested(index))
			now = await rewrittenOnce(now, { works: new Map([[moved(index)!, work]]), added: [], gone: new Set() });
	return now;
}
async function rewrittenOnce(document: AnyDocument, rewriting: RowRewriting): Promise<AnyDocument> {
	const { rewriteRows, open } = formatOf(document);
	return (await open!(await rewriteRows!(document, rewriting))) as AnyDocument;
}
