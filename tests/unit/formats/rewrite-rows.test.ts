import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { InputError } from '../../../src/lib/core/errors.ts';
import { typed } from '../../../src/lib/core/work/cells.ts';
import { withLock } from '../../../src/lib/core/work/locks.ts';
import { joinCells } from '../../../src/lib/core/work/join.ts';
import { insertColumns, insertRows, moveLines, removeLines } from '../../../src/lib/core/work/lines.ts';
import { whole } from '../../../src/lib/core/work/selection.ts';
import { sortRows } from '../../../src/lib/core/work/sort.ts';
import { cellOf, emptyTable, textOfContent, type WorkTable } from '../../../src/lib/core/work/table.ts';
import { tableOf, workOf } from '../../../src/lib/core/work/convert.ts';
import { openDocument, applyWorks, writeAs, type AnyDocument } from '../../../src/lib/formats/index.ts';
import { fromPoints } from '../../../src/lib/core/units.ts';
import { Package } from '../../../src/lib/formats/package/zip.ts';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { workFrom } from '../../../src/lib/server/tables/work.ts';
import { seasonReport } from '../../../demo/documents/season-report.ts';
import { seasonReportHtml, seasonReportOdt } from '../../../demo/documents/twins.ts';
import { runs } from '../runs.ts';

const encode = (text: string) => new TextEncoder().encode(text);
const CSV = 'Bed;Plants;Cost\r\nNorth;12;10,50\r\n"South; far";8;5,00\r\nTotal;20;15,50\r\n';
const FILES: Record<string, () => Promise<Uint8Array<ArrayBuffer>>> = {
	docx: seasonReport,
	odt: seasonReportOdt,
	html: seasonReportHtml,
	csv: async () => encode(CSV)
};
const opened = async (kind: string): Promise<AnyDocument> => openDocument(await FILES[kind]!(), `a.${kind}`);
const workAt = (document: AnyDocument, index: number): WorkTable => {
	const { table, content, widths } = document.tables[index]!;
	return workOf(table, content, widths);
};
const grid = ({ cells }: { cells: readonly { r: number; c: number; rows: number; cols: number; text: string }[] }) =>
	cells.map(({ r, c, rows, cols, text }) => [r, c, rows, cols, text.replace(/\s+/g, ' ').trim()].join('|'));
const others = (document: AnyDocument, but: number) =>
	document.tables.filter(({ index }) => index !== but).map(({ table }) => grid(table));

/** What is done to a table, by random numbers; what cannot be done leaves it as it is. */
function edited(work: WorkTable, numbers: readonly number[]): WorkTable {
	let next = work;
	for (let i = 0; i + 2 < numbers.length; i += 3) {
		const [what, a, b] = numbers.slice(i, i + 3) as [number, number, number];
		const [r, c] = [a % next.rows.length, b % next.columns.length];
		try {
			next =
				what % 7 === 0
					? typed(next, r, c, `typed ${a}`)
					: what % 7 === 1
						? insertRows(next, r, 1)
						: what % 7 === 2
							? insertColumns(next, c, 1)
							: what % 7 === 3
								? removeLines(next, 'rows', new Set([r]))
								: what % 7 === 4
									? moveLines(next, 'rows', r, 1, b % (next.rows.length + 1))
									: what % 7 === 5
										? joinCells(next, whole(next, { top: r, bottom: r, start: Math.max(0, c - 1), end: c }), 'one')
										: sortRows(next, [{ column: c, order: 'rising' }], 'en-GB');
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
		}
	}
	return next;
}

describe('tables that were worked on', () => {
	for (const kind of Object.keys(FILES))
		it(`come back from ${kind} as they were made, the other tables as they were`, async () => {
			const document = await opened(kind);
			await fc.assert(
				fc.asyncProperty(fc.nat(8), fc.array(fc.nat(1000), { minLength: 3, maxLength: 18 }), async (pick, numbers) => {
					const candidates = document.tables.filter(
						({ place, content }) => place.where !== 'nested' && !content.flat().some((piece) => 'nested' in piece)
					);
					const { index } = candidates[pick % candidates.length]!;
					const work = edited(workAt(document, index), numbers);
					const again = await applyWorks(document, new Map([[index, work]]));
					// Rows of values have no joined cells: what such a cell says stands in its first slot.
					if (kind !== 'csv') assert.deepEqual(grid(again.tables[index]!.table), grid(tableOf(work)));
					assert.deepEqual(again.tables[index]!.table.roles, tableOf(work).roles);
					assert.deepEqual(others(again, index), others(document, index));
					assert.deepEqual(
						again.blocks.map((block) => ('text' in block ? block.text : 'index' in block && block.index)),
						document.blocks.map((block) => ('text' in block ? block.text : 'index' in block && block.index))
					);
				}),
				{ numRuns: runs(kind === 'csv' ? 20 : 10) }
			);
		});

	for (const kind of ['docx', 'odt', 'html'])
		it(`change nothing in ${kind} where nothing was done: every cell keeps its markup and its look`, async () => {
			const document = await opened(kind);
			for (const { index, place, appearance, table } of document.tables) {
				if (place.where === 'nested') continue;
				const again = await applyWorks(document, new Map([[index, workAt(document, index)]]));
				const now = again.tables[index]!;
				assert.deepEqual(grid(now.table), grid(table));
				assert.deepEqual(
					[...now.appearance.cellLook].map((look) => now.appearance.looks[look]),
					[...appearance.cellLook].map((look) => appearance.looks[look]),
					`${kind}, table ${index + 1}`
				);
				assert.deepEqual(now.content.map(textOfContent), document.tables[index]!.content.map(textOfContent));
			}
		});

	for (const kind of ['docx', 'odt', 'html'])
		it(`give new cells of ${kind} the look of their neighbours, and words their emphasis`, async () => {
			const document = await opened(kind);
			const index = 0;
			let work = insertRows(workAt(document, index), 2, 1, 1);
			work = typed(work, 2, 0, [
				{ runs: [{ text: 'Early ' }, { text: 'May', italic: true }, { text: '2', position: 'super' }] }
			]);
			const again = await applyWorks(document, new Map([[index, work]]));
			const now = again.tables[index]!;
			const cell = now.table.slots[2 * now.table.columns]!;
			const above = now.table.slots[now.table.columns]!;
			// Bands of the file's own table style go by their count, whoever put the row in.
			const { fill: _own, ...look } = now.appearance.looks[now.appearance.cellLook[cell]!]!;
			const { fill: _, ...model } = now.appearance.looks[now.appearance.cellLook[above]!]!;
			assert.deepEqual(look, model);
			const [paragraph] = now.content[cell]!;
			assert.deepEqual(
				'runs' in paragraph! && paragraph.runs.map(({ text, italic, position }) => [text, !!italic, position]),
				[
					['Early ', false, undefined],
					['May', true, undefined],
					['2', false, 'super']
				]
			);
		});

	for (const kind of ['docx', 'odt', 'html'])
		it(`stand in ${kind} where they were put in, and the tables after them count on`, async () => {
			const document = await opened(kind);
			const made = typed(typed(emptyTable(3, 2), 0, 0, 'Seed'), 1, 1, '12');
			const second = document.blocks.findIndex((block) => block.kind === 'table' && block.index === 1);
			const again = await applyWorks(document, new Map([[1, made]]), [{ after: second - 1 }]);
			assert.equal(again.tables.length, document.tables.length + 1);
			assert.deepEqual(grid(again.tables[1]!.table), grid(tableOf(made)));
			assert.deepEqual(
				again.tables.filter(({ index }) => index !== 1).map(({ table }) => grid(table)),
				document.tables.map(({ table }) => grid(table))
			);
			const first = await applyWorks(document, new Map([[0, made]]), [{ after: -1 }]);
			assert.deepEqual(grid(first.tables[0]!.table), grid(tableOf(made)));
			const at = again.blocks.findIndex((block) => block.kind === 'table' && block.index === 1);
			assert.equal(at, second);
		});

	it('go out in every format with the words that they hold', async () => {
		const document = await opened('docx');
		const work = typed(insertRows(workAt(document, 0), 3, 1), 3, 0, 'A new row');
		const again = await applyWorks(document, new Map([[0, work]]));
		const options = { house: { inks: {}, typeRoles: {} }, title: 'Report' };
		for (const to of ['odt', 'html', 'csv', 'json', 'docx'] as const) {
			const { bytes } = await writeAs(to, again, [], options);
			const back = await openDocument(bytes, `b.${to}`);
			assert.ok(
				back.tables.some(({ table }) => table.cells.some(({ text }) => text === 'A new row')),
				to
			);
		}
	});

	it('keep the separator, the line ends and the encoding of their rows', async () => {
		const document = await opened('csv');
		const work = typed(workAt(document, 0), 1, 0, 'Ost');
		const again = await applyWorks(document, new Map([[0, work]]));
		assert.equal('source' in again && (again.source as { text: string }).text, CSV.replace('North', 'Ost'));
		const latin = await openDocument(new Uint8Array([...encode('Bed;Plants\nS'), 0xfc, ...encode('d;1\n')]), 'a.csv');
		const more = await applyWorks(latin, new Map([[0, typed(workAt(latin, 0), 1, 1, '→ 2')]]));
		assert.deepEqual(
			more.tables[0]!.table.cells.map(({ text }) => text),
			['Bed', 'Plants', 'Süd', '→ 2']
		);
	});

	for (const kind of ['docx', 'odt'] as const)
		it(`says in ${kind} which cells are locked against typing, and reads it there`, async () => {
			const document = await opened(kind);
			const places = [
				{ r: 1, c: 0 },
				{ r: 2, c: 1 }
			];
			const lockedIn = (tables: AnyDocument['tables']) => {
				const { table, locked = [] } = tables[0]!;
				return locked.map((i) => `${table.cells[i]!.r},${table.cells[i]!.c}`);
			};
			const work = withLock(workAt(document, 0), places, 'both');
			const again = await applyWorks(document, new Map([[0, work]]));
			const { bytes } = await writeAs(kind, again, [], { house: FIRST_HOUSE, title: 'locked' });
			const back = await openDocument(bytes, `b.${kind}`);
			assert.deepEqual(lockedIn(back.tables), ['1,0', '2,1']);
			assert.deepEqual(grid(back.tables[0]!.table), grid(document.tables[0]!.table));
			const reopened = workFrom(back.tables[0]!);
			assert.equal(cellOf(reopened, 1, 0).lock, 'content');
			assert.equal(cellOf(reopened, 1, 1).lock, undefined);
			// Unlocked again, the file says nothing of it.
			const free = await applyWorks(back, new Map([[0, withLock(reopened, places, undefined)]]));
			assert.deepEqual(lockedIn(free.tables), []);
		});

	/** Column 1 and row 2 as they are dragged to a size at the bench. */
	const sized = (work: WorkTable): WorkTable => ({
		...work,
		columns: work.columns.map((column, c) => (c === 0 ? { ...column, width: fromPoints(222) } : column)),
		rows: work.rows.map((row, r) => (r === 1 ? { ...row, height: fromPoints(44) } : row))
	});

	for (const kind of ['docx', 'odt', 'html'])
		it(`keep the sizes in ${kind} that columns and rows were given`, async () => {
			const document = await opened(kind);
			for (const index of [0, 1]) {
				const { widths, table, appearance } = document.tables[index]!;
				const again = await applyWorks(document, new Map([[index, sized(workAt(document, index))]]));
				const now = again.tables[index]!;
				assert.ok(Math.abs(now.widths[0]! - fromPoints(222)) < 10_000, `${now.widths[0]} EMU`);
				assert.deepEqual(now.widths.slice(1), widths.slice(1), `${kind}, table ${index + 1}`);
				assert.deepEqual(grid(now.table), grid(table));
				assert.deepEqual(
					[...now.appearance.cellLook].map((look) => now.appearance.looks[look]),
					[...appearance.cellLook].map((look) => appearance.looks[look])
				);
				const { bytes } = await writeAs(kind as 'docx', again, [], { house: FIRST_HOUSE, title: 'sized' });
				const height = { docx: /<w:trHeight w:val="880"/, odt: /min-row-height="44pt"/, html: /height: 58\.7px/ }[
					kind
				]!;
				const text =
					kind === 'html'
						? new TextDecoder().decode(bytes)
						: await (await Package.open(bytes, 'x')).text(kind === 'odt' ? 'content.xml' : 'word/document.xml');
				assert.match(text!, height);
				assert.deepEqual((await openDocument(bytes, `b.${kind}`)).tables[index]!.widths, now.widths);
			}
		});

	it('leave the rest of a row’s own style alone where it is given a height', async () => {
		const page = `<table><tr><td>a<td>b</tr><tr style="background: url('x;y'); height: 3px; color: red"><td>1<td>2</tr></table>`;
		const document = await openDocument(encode(page), 'a.html');
		const again = await applyWorks(document, new Map([[0, sized(workAt(document, 0))]]));
		const { bytes } = await writeAs('html', again, [], { house: FIRST_HOUSE, title: 'x' });
		const text = new TextDecoder().decode(bytes);
		assert.match(text, /<tr style="background: url\('x;y'\); color: red; height: 58\.7px">/);
	});
});
