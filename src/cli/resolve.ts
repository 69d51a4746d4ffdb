import type { Side } from '../lib/core/table/grid.ts';
import { InputError } from '../lib/core/errors.ts';
import { listResolved } from '../lib/core/cascade/answer.ts';
import { resolve, traceCell, traceEdge } from '../lib/core/cascade/resolve.ts';
import { FIRST_HOUSE } from '../lib/core/house.ts';
import { flatten } from '../lib/core/style/inherit.ts';
import { tableFromFile } from '../lib/core/table/file.ts';
import { onlyFile, readJson, readStyle, required } from './files.ts';
import type { Arguments, ExitCode } from './command.ts';

const USAGE = 'heptarch resolve TABLE.json --style STYLE.json [--trace R,C]';

export async function resolveCommand(args: Arguments): Promise<ExitCode> {
	const file = onlyFile(args, USAGE);
	const style = await readStyle(required(args, 'style', USAGE));
	let table;
	try {
		table = tableFromFile(await readJson(file));
	} catch (error) {
		if (error instanceof InputError && error.code !== 'file')
			throw new InputError(error.code, `“${file}”: ${error.message}`, error.where);
		throw error;
	}
	const resolved = resolve(table, flatten(style), FIRST_HOUSE);
	if (args.values.trace === undefined) {
		console.log(JSON.stringify(listResolved(resolved), null, 2));
		return 0;
	}
	const match = /^(\d+)\s*,\s*(\d+)$/.exec(String(args.values.trace));
	const [r, c] = match ? [Number(match[1]) - 1, Number(match[2]) - 1] : [-1, -1];
	if (r < 0 || c < 0 || r >= table.rows || c >= table.columns)
		throw new InputError(
			'usage',
			`--trace takes a row and a column of the table, counted from 1, such as 3,2; the table has ${table.rows} × ${table.columns}.`
		);
	const leaves = Object.fromEntries(traceCell(resolved, r, c));
	const edges = Object.fromEntries(
		(['top', 'bottom', 'start', 'end'] as Side[]).flatMap((side) => {
			const trace = traceEdge(resolved, r, c, side);
			if (!trace) return [];
			const claims = trace.claims.map((claim) =>
				Object.fromEntries(
					[...claim].map(([property, said]) => [
						property,
						said.map(({ value, rank, part, style: from }) => ({ value, rank, part, style: from }))
					])
				)
			);
			return [[side, { ...trace.result, claims }]];
		})
	);
	console.log(JSON.stringify({ r, c, leaves, edges }, null, 2));
	return 0;
}
