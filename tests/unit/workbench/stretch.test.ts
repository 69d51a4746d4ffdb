import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Block } from '../../../src/lib/core/table/content.ts';
import { createGrid } from '../../../src/lib/core/table/grid.ts';
import type { DocumentTable } from '../../../src/lib/formats/document.ts';
import { stretchAt } from '../../../src/lib/workbench/stretch.ts';

/** Only what a stretch looks at. */
const table = (index: number, cells: number, place: DocumentTable['place']): DocumentTable =>
	({ index, place, table: createGrid([Array.from({ length: cells }, () => 'text')]) }) as unknown as DocumentTable;

interface Told {
	readonly cells: number;
	readonly text: boolean;
	readonly is: 'own' | 'nested' | 'beside';
}
/** A document of tables in the text, in cells of others, and beside the text. */
function document(told: readonly Told[]) {
	const blocks: Block[] = [];
	const tables: DocumentTable[] = [];
	let outer: number | undefined;
	told.forEach(({ cells, text, is }, index) => {
		if (text) blocks.push({ kind: 'paragraph', text: `before ${index}` } as unknown as Block);
		if (is === 'nested' && outer !== undefined)
			tables.push(table(index, cells, { where: 'nested', part: 'p', inside: outer }));
		else if (is === 'beside') tables.push(table(index, cells, { where: 'header', part: 'h' }));
		else {
			tables.push(table(index, cells, { where: 'body', part: 'p' }));
			blocks.push({ kind: 'table', index } as unknown as Block);
			outer = index;
		}
	});
	blocks.push({ kind: 'paragraph', text: 'the end' } as unknown as Block);
	return { blocks, tables };
}
const anyTold = fc.array(
	fc.record({
		cells: fc.integer({ min: 1, max: 60 }),
		text: fc.boolean(),
		is: fc.constantFrom<Told['is']>('own', 'own', 'own', 'nested', 'beside')
	}),
	{ minLength: 1, maxLength: 30 }
);

describe('stretches of a document', () => {
	it('hold every table and every block once, in order, each at its own index', () => {
		fc.assert(
			fc.property(anyTold, fc.integer({ min: 1, max: 6_000 }), (told, most) => {
				const whole = document(told);
				const blocks: Block[] = [];
				const indices: number[] = [];
				let before: number | null = null;
				let at: number | null = stretchAt(whole, 0, most).stretch.first;
				// From the first part on, whichever table is asked for.
				for (let first = stretchAt(whole, 0, most).stretch; first.before !== null;)
					first = stretchAt(whole, (at = first.before), most).stretch;
				while (at !== null) {
					const part: ReturnType<typeof stretchAt> = stretchAt(whole, at, most);
					assert.equal(part.stretch.of, whole.tables.length);
					assert.equal(part.tables.length, whole.tables.length);
					for (const [index, entry] of Object.entries(part.tables)) {
						assert.equal(entry.index, Number(index));
						assert.deepEqual(stretchAt(whole, entry.index, most).stretch, part.stretch);
						if (entry.place.where === 'nested') assert.ok(entry.place.inside! in part.tables);
						indices.push(entry.index);
					}
					blocks.push(...part.blocks);
					if (before !== null) assert.ok(part.stretch.before !== null);
					before = at;
					at = part.stretch.after;
				}
				assert.deepEqual(blocks, whole.blocks);
				assert.deepEqual(
					indices.toSorted((a, b) => a - b),
					whole.tables.map(({ index }) => index)
				);
			})
		);
	});

	it('are one where a document is short', () => {
		const whole = document([{ cells: 4, text: true, is: 'own' }]);
		const { blocks, tables, stretch } = stretchAt(whole, 7);
		assert.deepEqual({ blocks, tables }, whole);
		assert.deepEqual(stretch, { first: 0, last: 0, before: null, after: null, of: 1 });
	});
});
