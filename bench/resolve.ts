import { resolve, restyle } from '../src/lib/core/cascade/resolve.ts';
import { FIRST_HOUSE } from '../src/lib/core/house.ts';
import { recognisedTable } from '../src/lib/core/recognise/table.ts';
import { flatten } from '../src/lib/core/style/inherit.ts';
import { withLeaf } from '../src/lib/core/style/leaves.ts';
import { createGrid } from '../src/lib/core/table/grid.ts';
import { DEMO_STYLES } from '../demo/styles/index.ts';
import { median, report, timed } from './measure.ts';

const ROWS = 1_000;
const COLUMNS = 200;

/** Resolving a 1,000 × 200 table, against a bare loop over its cells; and restyling it after a change of one leaf. */
export async function benchResolve(): Promise<void> {
	const texts = Array.from({ length: ROWS }, (_, r) =>
		Array.from({ length: COLUMNS }, (_, c) => (r === 0 ? `Column ${c}` : c === 0 ? `Row ${r}` : String((r * c) % 997)))
	);
	const { table } = recognisedTable(createGrid(texts));
	const ledger = DEMO_STYLES.find(({ name }) => name === 'Season Ledger')!;
	const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
	// A style is flattened anew each time: nothing worked out before may help.
	const style = () => flatten(ledger, find);
	const changed = () =>
		flatten({ ...ledger, parts: { ...ledger.parts, total: withLeaf(ledger.parts.total!, 'text.ink', 'rust') } }, find);

	let sink = 0;
	const loop = () => {
		const out = new Int32Array(ROWS * COLUMNS);
		for (let i = 0; i < table.cells.length; i++) {
			out[i] = 7;
			sink += table.cells[i]!.text.length;
		}
		return out;
	};
	const bare = median(await timed(loop, 41, 60));
	const first = median(await timed(() => resolve(table, style(), FIRST_HOUSE), 41, 60));
	const resolved = resolve(table, style(), FIRST_HOUSE);
	const again = median(await timed(() => restyle(resolved, changed()), 41, 60));
	report(
		'resolve 1,000 × 200 cells, against a bare loop',
		first,
		bare,
		10,
		`${first.toFixed(2)} ms against ${bare.toFixed(2)} ms, ${resolved.leaves.length} signatures, ${resolved.edges.length} edge signatures`
	);
	report(
		'restyle after a change of one leaf, against the first resolve',
		again,
		first,
		1 / 10,
		`${again.toFixed(3)} ms`
	);
	if (sink < 0) console.log(sink);
}
