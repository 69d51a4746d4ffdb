import { InputError } from '../lib/core/errors.ts';
import { openDocument } from '../lib/formats/index.ts';
import { findingsIn, placedWords } from '../lib/core/findings/index.ts';
import { drawingFindings } from '../lib/workbench/plotted.ts';
import { plural } from '../lib/core/words.ts';
import { readBytes } from './files.ts';
import type { Arguments, ExitCode } from './command.ts';

export async function checkCommand(args: Arguments): Promise<ExitCode> {
	if (args.positionals.length === 0) throw new InputError('usage', 'Name files.\nUsage: heptarch check FILE… [--json]');
	const files = [];
	for (const file of args.positionals) {
		const document = await openDocument(await readBytes(file), file);
		files.push({
			file,
			tables: document.tables.map((entry) => ({
				number: entry.index + 1,
				findings: [...findingsIn(entry), ...(document.kind === 'svg' ? drawingFindings(document, entry.index) : [])]
			}))
		});
	}
	const count = files.flatMap(({ tables }) => tables.flatMap(({ findings }) => findings)).length;
	if (args.values.json) console.log(JSON.stringify(files, null, 2));
	else {
		for (const { file, tables } of files)
			for (const { number, findings } of tables)
				for (const finding of findings) console.log(`${file}, table ${number}: ${placedWords(finding)}`);
		console.log(count ? `${plural(count, 'finding')}.` : 'Nothing to mention.');
	}
	return count ? 1 : 0;
}
