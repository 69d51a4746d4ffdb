import { InputError } from '../lib/core/errors.ts';
import { linesBetween, type RowChanges } from '../lib/core/pair/rows.ts';
import { pairTables } from '../lib/core/pair/tables.ts';
import { plural } from '../lib/core/words.ts';
import type { DocumentTable } from '../lib/formats/document.ts';
import { openDocument } from '../lib/formats/index.ts';
import { readBytes } from './files.ts';
import type { Arguments, ExitCode } from './command.ts';

export const USAGE = 'heptarch pair OLD NEW [--json]';

/** A table by its number and what it is called. */
const nameOf = ({ index, place }: DocumentTable): string => {
	const name = place.caption ?? place.heading;
	return `table ${index + 1}${name ? `, “${name}”` : ''}`;
};
const rowNumbers = (rows: readonly number[]): string => rows.map((r) => r + 1).join(', ');
function* wordsOf({ added, gone, changed }: RowChanges): Generator<string> {
	if (added.length) yield `${plural(added.length, 'row')} added (${rowNumbers(added)})`;
	if (gone.length) yield `${plural(gone.length, 'row')} gone (${rowNumbers(gone)})`;
	if (changed.length) yield `${plural(changed.length, 'row')} changed (${rowNumbers(changed.map(([, now]) => now))})`;
}

/** Finds the tables of a document in a newer version of it. */
export async function pairCommand(args: Arguments): Promise<ExitCode> {
	const [oldFile, newFile, ...more] = args.positionals;
	if (!oldFile || !newFile || more.length)
		throw new InputError('usage', `Name two files: the one before and the newer one.\nUsage: ${USAGE}`);
	const [old, now] = await Promise.all(
		[oldFile, newFile].map(async (file) => openDocument(await readBytes(file), file))
	);
	const { pairs, gone, new: fresh } = pairTables(old!.tables, now!.tables);
	const found = pairs.map((pair) => ({
		...pair,
		rows: linesBetween(old!.tables[pair.old]!.table, now!.tables[pair.new]!.table).changes
	}));
	const isSame = !gone.length && !fresh.length && found.every(({ rows }) => [...wordsOf(rows)].length === 0);
	if (args.values.json) console.log(JSON.stringify({ pairs: found, gone, new: fresh }, null, 2));
	else {
		for (const { old: i, new: j, sure, why, rows } of found) {
			const changes = [...wordsOf(rows)];
			console.log(`${nameOf(old!.tables[i]!)} → ${nameOf(now!.tables[j]!)}: ${changes.join('; ') || 'no row differs'}`);
			console.log(`    ${Math.round(100 * sure)} % sure: ${why.join('; ')}`);
		}
		for (const index of gone) console.log(`${nameOf(old!.tables[index]!)}: gone`);
		for (const index of fresh) console.log(`${nameOf(now!.tables[index]!)}: new`);
		if (isSame) console.log('Nothing differs.');
	}
	return isSame ? 0 : 1;
}
