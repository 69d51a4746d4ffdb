import { pluralWord } from '../lib/core/words.ts';
import { InputError } from '../lib/core/errors.ts';
import { FIRST_HOUSE } from '../lib/core/house.ts';
import { lift } from '../lib/core/lift/lift.ts';
import { styleText } from '../lib/core/style/canonical.ts';
import { selfContained } from '../lib/core/style/export.ts';
import { flatten } from '../lib/core/style/inherit.ts';
import { describeStyle } from '../lib/core/style/sentence.ts';
import { bareName, openDocument } from '../lib/formats/index.ts';
import { basename } from 'node:path';
import { onlyFile, readBytes, required, writeWhole } from './files.ts';
import type { Arguments, ExitCode } from './command.ts';

const USAGE = 'heptarch lift FILE --table N --out STYLE.json [--json]';

export async function liftCommand(args: Arguments): Promise<ExitCode> {
	const file = onlyFile(args, USAGE);
	const out = required(args, 'out', USAGE);
	const number = required(args, 'table', USAGE);
	const document = await openDocument(await readBytes(file), file);
	const entry = document.tables[Number(number) - 1];
	if (!/^\d+$/.test(number) || !entry)
		throw new InputError('usage', `There is no table ${number}: the document has ${document.tables.length} table(s).`);
	const name = `${bareName(basename(file))}, table ${number}`;
	const { style, touches, settings, reproduced } = lift(entry.table, entry.appearance, FIRST_HOUSE, name);
	await writeWhole(out, new TextEncoder().encode(styleText(selfContained(style, FIRST_HOUSE))));
	if (args.values.json) console.log(JSON.stringify({ out, name, settings, reproduced, touches }, null, 2));
	else {
		console.log(`“${name}” with ${settings} settings, written to ${out}.`);
		console.log(describeStyle(flatten(style)));
		console.log(
			`It says ${(reproduced * 100).toFixed(1)} % of how the table looks; ${touches.length || 'no'} ${pluralWord(touches.length, 'cell')} left over.`
		);
		for (const { r, c, set } of touches.slice(0, 10))
			console.log(`    row ${r}, column ${c}: ${Object.keys(set).join(', ')}`);
	}
	return touches.length ? 1 : 0;
}
