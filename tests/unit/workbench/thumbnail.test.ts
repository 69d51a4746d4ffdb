import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { appearanceOf } from '../../../src/lib/core/cascade/look.ts';
import { resolve } from '../../../src/lib/core/cascade/resolve.ts';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { flatten } from '../../../src/lib/core/style/inherit.ts';
import { createGrid } from '../../../src/lib/core/table/grid.ts';
import { recognisedTable } from '../../../src/lib/core/recognise/table.ts';
import { openThumbnail, thumbnailOf } from '../../../src/lib/workbench/thumbnail.ts';
import { anyGrid, anyStyle } from '../core/any.ts';

describe('a thumbnail', () => {
	it('is the head of the table as it looks: texts, looks and edges, also once it was kept', () => {
		fc.assert(
			fc.property(anyGrid, anyStyle, (grid, style) => {
				const { table } = recognisedTable(createGrid(grid.texts, grid.spans));
				const appearance = appearanceOf(resolve(table, flatten(style), FIRST_HOUSE));
				const kept = JSON.parse(
					JSON.stringify(thumbnailOf('x', table, appearance, [], { rows: 4, columns: 3 }))
				) as ReturnType<typeof thumbnailOf>;
				const { grid: head, appearance: shown } = openThumbnail(kept);
				for (let r = 0; r < head.rows; r++)
					for (let c = 0; c < head.columns; c++) {
						const [mine, theirs] = [head.slots[r * head.columns + c]!, table.slots[r * table.columns + c]!];
						assert.equal(head.cells[mine]!.text, table.cells[theirs]!.text.slice(0, 40));
						assert.deepEqual(shown.looks[shown.cellLook[mine]!], appearance.looks[appearance.cellLook[theirs]!]);
					}
				const line = (lines: readonly unknown[], edge: number) => (edge < 0 ? 'inside' : lines[edge]);
				for (let r = 0; r <= head.rows; r++)
					for (let c = 0; c < head.columns; c++)
						assert.deepEqual(
							line(shown.lines, shown.across[r * head.columns + c]!),
							line(appearance.lines, appearance.across[r * table.columns + c]!)
						);
			})
		);
	});
});
