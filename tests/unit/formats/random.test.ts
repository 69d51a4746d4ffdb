import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { ONLY_TEXT, OWN_LOOK } from '../../../src/lib/core/style/bare.ts';
import { ASPECTS } from '../../../src/lib/core/style/types.ts';
import { textOfContent } from '../../../src/lib/core/work/table.ts';
import type { StyleJob } from '../../../src/lib/formats/job.ts';
import { openDocument, writeAs, type AnyDocument } from '../../../src/lib/formats/index.ts';
import { DEMO_STYLES } from '../../../demo/styles/index.ts';
import { TOUCHES, touchesOf } from './documents.ts';
import { Random } from './random.ts';
import { randomDocx } from './random-docx.ts';
import { randomHtml } from './random-html.ts';
import { runs } from '../runs.ts';

const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
const bare = (text: string) => text.trim().replace(/\s+/g, ' ');
const textOf = ({ tables }: AnyDocument) => tables.map(({ table }) => table.cells.map(({ text }) => bare(text)));
/** The same in a new file, where captions of tables inside stand before them. */
const textInNew = async (document: AnyDocument) =>
	((await document.whole?.()) ?? document).tables.map(({ content }) =>
		content.map((pieces) => bare(textOfContent(pieces)))
	);

/** Most tables of a document in some style, cleared, or as they are; carried in part and touched. */
function jobsFor({ tables }: AnyDocument, random: Random): StyleJob[] {
	return tables
		.filter(() => random.is(0.8))
		.map(({ index, table }): StyleJob => {
			const style = random.pick([ONLY_TEXT, OWN_LOOK, ...DEMO_STYLES]);
			const some = random.is(0.5) ? ASPECTS : ASPECTS.filter(() => random.is(0.5));
			const carry = style === OWN_LOOK ? [] : style === ONLY_TEXT ? ASPECTS : some;
			const cell = random.pick(table.cells);
			const touches = random.is(0.4) ? touchesOf(table, cell, random.pick(TOUCHES)) : [];
			const isMerged = cell.rows * cell.cols > 1;
			return {
				index,
				style,
				// One segment of a merged cell's side may be more than a file can say.
				table: { ...table, carry, partsOff: [], touches: touches.filter(({ set }) => !set.lines || !isMerged) },
				dropsEmphasis: style !== OWN_LOOK && random.is(0.2)
			};
		});
}

describe('random files, any tables of them in any styles', () => {
	const makers = { docx: randomDocx, html: async (seed: number) => randomHtml(seed) };
	for (const kind of ['docx', 'html'] as const)
		it(`${kind}: read back as meant, in every format, with all of their text`, async () => {
			await fc.assert(
				fc.asyncProperty(fc.integer(), async (seed) => {
					const document = await openDocument(await makers[kind](seed), `a.${kind}`);
					const random = new Random(~seed);
					const jobs = jobsFor(document, random);
					const to = random.is(0.7) ? kind : random.pick(['docx', 'odt', 'html'] as const);
					const as = random.pick(['living', 'direct'] as const);
					const { bytes, account } = await writeAs(to, document, jobs, { house: FIRST_HOUSE, find, title: 't', as });
					for (const { index, differences } of account.tables)
						assert.deepEqual(differences.slice(0, 2), [], `table ${index + 1} of ${to}, ${as}`);
					assert.deepEqual(
						textOf(await openDocument(bytes, `b.${to}`)),
						to === kind ? textOf(document) : await textInNew(document)
					);
				}),
				{ numRuns: runs(50), seed: 2031 }
			);
		});
});
