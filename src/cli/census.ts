import { InputError } from '../lib/core/errors.ts';
import { portrait } from '../lib/core/lift/likeness.ts';
import { groupsOf } from '../lib/core/lift/looks.ts';
import { openDocument } from '../lib/formats/index.ts';
import { readBytes } from './files.ts';
import type { Arguments, ExitCode } from './command.ts';

/** Groups the tables of some files by how they look; more than one look is a finding. */
export async function censusCommand(args: Arguments): Promise<ExitCode> {
	if (args.positionals.length === 0)
		throw new InputError('usage', 'Name files.\nUsage: heptarch census FILE… [--json]');
	const items = [];
	for (const file of args.positionals) {
		const document = await openDocument(await readBytes(file), file);
		for (const { index, table, appearance, carried, place } of document.tables)
			items.push({
				file,
				number: index + 1,
				caption: place.caption ?? null,
				wears: carried?.style ?? null,
				look: portrait(table, appearance)
			});
	}
	const groups = groupsOf(items, ({ look }) => look).map((group) =>
		group.map(({ file, number, caption, wears }) => ({ file, number, caption, wears }))
	);
	if (args.values.json)
		console.log(JSON.stringify({ files: args.positionals.length, tables: items.length, groups }, null, 2));
	else {
		console.log(`${items.length} tables in ${args.positionals.length} file(s), ${groups.length} look(s).`);
		groups.forEach((group, i) => {
			console.log(`Look ${i + 1}: ${group.length} table(s)`);
			for (const { file, number, caption, wears } of group)
				console.log(`  ${file}, table ${number}${caption ? `, “${caption}”` : ''}${wears ? ` (wears ${wears})` : ''}`);
		});
	}
	return groups.length > 1 ? 1 : 0;
}
