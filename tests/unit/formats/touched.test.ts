import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { LOOK_FIELDS, type Appearance } from '../../../src/lib/core/cascade/look.ts';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { OWN_LOOK } from '../../../src/lib/core/style/bare.ts';
import type { Table, Touch } from '../../../src/lib/core/table/grid.ts';
import { sameLine } from '../../../src/lib/core/properties/line.ts';
import type { StyleJob } from '../../../src/lib/formats/job.ts';
import { openDocument, writeAs, type AnyDocument, type OutKind } from '../../../src/lib/formats/index.ts';
import { Package } from '../../../src/lib/formats/package/zip.ts';
import { TOUCHES as SETS, touchesOf } from './documents.ts';
import { DEMO_STYLES } from '../../../demo/styles/index.ts';
import { seasonReport } from '../../../demo/documents/season-report.ts';
import { seasonReportHtml, seasonReportOdt } from '../../../demo/documents/twins.ts';
import { runs } from '../runs.ts';

const FILES = { docx: seasonReport, odt: seasonReportOdt, html: seasonReportHtml };
const opened = async (kind: keyof typeof FILES) => openDocument(await FILES[kind](), `a.${kind}`);
const bare = (table: Table, touches: readonly Touch[]): Table => ({ ...table, carry: [], partsOff: [], touches });
const jobFor = (document: AnyDocument, index: number, touches: readonly Touch[]): StyleJob => ({
	index,
	style: OWN_LOOK,
	table: bare(document.tables[index]!.table, touches)
});
const write = (document: AnyDocument, jobs: readonly StyleJob[], kind: OutKind) =>
	writeAs(kind, document, jobs, { house: FIRST_HOUSE, title: 'touched' });

/** The cells that look otherwise, as `r,c`. */
function otherCells({ cells, columns }: Table, a: Appearance, b: Appearance): string[] {
	const lineAt = (one: Appearance, edges: 'across' | 'down', at: number) =>
		one[edges][at]! < 0 ? null : (one.lines[one[edges][at]!] ?? null);
	return cells.flatMap(({ r, c, rows, cols }, i) => {
		const [is, was] = [a.looks[a.cellLook[i]!]!, b.looks[b.cellLook[i]!]!];
		const edges = [
			['across', r * columns + c],
			['across', (r + rows) * columns + c],
			['down', r * (columns + 1) + c],
			['down', r * (columns + 1) + c + cols]
		] as const;
		const isSame =
			LOOK_FIELDS.every((field) => JSON.stringify(is[field]) === JSON.stringify(was[field])) &&
			edges.every(([which, at]) => sameLine(lineAt(a, which, at), lineAt(b, which, at)));
		return isSame ? [] : [`${r},${c}`];
	});
}

describe('a table that was touched and given no style', () => {
	for (const kind of Object.keys(FILES) as (keyof typeof FILES)[])
		it(`looks in its ${kind} as it came, with the touches over it`, async () => {
			const document = await opened(kind);
			await fc.assert(
				fc.asyncProperty(
					fc.nat(document.tables.length - 1),
					fc.array(fc.tuple(fc.nat(20), fc.nat(20), fc.constantFrom(...SETS)), { minLength: 1, maxLength: 5 }),
					async (index, touching) => {
						const { table, appearance, place } = document.tables[index]!;
						if (place.where === 'nested') return;
						const touches = touching.flatMap(([r, c, set]) => {
							const { cells } = table;
							return touchesOf(table, cells[(r * 7 + c) % cells.length]!, set);
						});
						const { bytes, account } = await write(document, [jobFor(document, index, touches)], kind);
						assert.deepEqual(account.tables[0]!.differences, []);
						const back = await openDocument(bytes, `b.${kind}`);
						const near = new Set(
							touches.flatMap(({ r, c, set }) => {
								const cell = table.cells[table.slots[r * table.columns + c]!]!;
								// A touched line is the neighbour's, too.
								const beyond = set.lines ? [`${cell.r + cell.rows},${c}`, `${r},${cell.c + cell.cols}`] : [];
								return [`${cell.r},${cell.c}`, ...beyond];
							})
						);
						const reached = [...near].flatMap((key) => {
							const [r, c] = key.split(',').map(Number) as [number, number];
							const cell = table.cells[table.slots[r * table.columns + c]!];
							return cell && r < table.rows && c < table.columns ? [`${cell.r},${cell.c}`] : [];
						});
						for (const key of otherCells(table, back.tables[index]!.appearance, appearance))
							assert.ok(reached.includes(key), `cell ${key} changed, touched were ${[...near].join(' ')}`);
						document.tables.forEach((other, i) => {
							if (i !== index && other.place.inside === undefined)
								assert.deepEqual(otherCells(other.table, back.tables[i]!.appearance, other.appearance), []);
						});
					}
				),
				{ numRuns: runs(6) }
			);
		});

	it('keeps the line of most of a side where one segment of it is touched and no cell beyond can say it', async () => {
		const bottom = { pattern: 'solid', weight: '1.5pt', ink: '#0000FF' } as const;
		for (const kind of Object.keys(FILES) as (keyof typeof FILES)[]) {
			const document = await opened(kind);
			// Its total row is one cell over three columns, at the rim.
			const { table, appearance } = document.tables[7]!;
			const at = table.rows * table.columns;
			assert.deepEqual([...table.slots.slice(-3)], [13, 13, 13]);
			const touches = [{ r: table.rows - 1, c: 1, set: { lines: { bottom } } }];
			const { bytes, account } = await write(document, [jobFor(document, 7, touches)], kind);
			assert.deepEqual(
				account.tables[0]!.differences.map(({ r, c, wanted }) => [r, c, wanted]),
				[[table.rows, 1, 'solid 1.5pt #0000FF']],
				kind
			);
			const back = (await openDocument(bytes, `b.${kind}`)).tables[7]!.appearance;
			for (let k = 0; k < table.columns; k++)
				assert.ok(
					sameLine(back.lines[back.across[at + k]!], appearance.lines[appearance.across[at + k]!]),
					`${kind}: segment ${k}`
				);
		}
	});

	it('keeps every cell that nobody touched byte for byte in a DOCX, and adds no style and no data', async () => {
		const bytes = await seasonReport();
		const document = await openDocument(bytes, 'a.docx');
		const { bytes: out } = await write(document, [jobFor(document, 1, [{ r: 1, c: 1, set: SETS[0]! }])], 'docx');
		const [before, after] = await Promise.all([Package.open(bytes, 'x'), Package.open(out, 'x')]);
		assert.deepEqual(after.names, before.names);
		const [was, is] = await Promise.all([before.text('word/document.xml'), after.text('word/document.xml')]);
		let start = 0;
		while (was![start] === is![start]) start++;
		let end = 0;
		while (end < was!.length - start && was!.at(-1 - end) === is!.at(-1 - end)) end++;
		assert.ok(was!.length - start - end < 200, `${was!.length - start - end} characters changed`);
		assert.equal(await before.text('word/styles.xml'), await after.text('word/styles.xml'));
	});

	it('leaves a table inside it the style that it is given', async () => {
		for (const kind of ['docx', 'odt', 'html'] as const) {
			const document = await opened(kind);
			const inner = document.tables.find(({ place }) => place.where === 'nested')!;
			const outer = inner.place.inside!;
			const ledger = DEMO_STYLES.find(({ name }) => name === 'Season Ledger')!;
			const jobs = [
				jobFor(document, outer, [{ r: 0, c: 0, set: SETS[0]! }]),
				{ index: inner.index, style: ledger, table: inner.table }
			];
			const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
			const { bytes, account } = await writeAs(kind, document, jobs, { house: FIRST_HOUSE, find, title: 'nested' });
			assert.deepEqual(
				account.tables.map(({ differences }) => differences),
				[[], []],
				kind
			);
			const back = (await openDocument(bytes, `b.${kind}`)).tables;
			assert.equal(back[inner.index]!.carried?.style, 'Season Ledger', kind);
		}
	});

	it('goes into every other format as it looks', async () => {
		const document = await opened('docx');
		const jobs = [jobFor(document, 0, [{ r: 1, c: 1, set: { fill: { ink: '#ABCDEF' } } }])];
		for (const kind of ['odt', 'html'] as const) {
			const { bytes } = await write(document, jobs, kind);
			const { appearance, table } = (await openDocument(bytes, `b.${kind}`)).tables[0]!;
			const cell = table.slots[table.columns + 1]!;
			assert.equal(appearance.looks[appearance.cellLook[cell]!]!.fill, '#ABCDEF', kind);
		}
		const { bytes } = await write(document, jobs, 'css');
		assert.doesNotMatch(new TextDecoder().decode(bytes), /its own look/);
		const json = JSON.parse(new TextDecoder().decode((await write(document, jobs, 'json')).bytes)) as object[];
		assert.deepEqual((json[0] as { touches: unknown }).touches, jobs[0]!.table.touches);
		assert.equal((json[0] as { wears?: unknown }).wears, undefined);
	});
});
