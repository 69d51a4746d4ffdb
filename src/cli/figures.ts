import { withoutWords } from '../lib/core/work/figures.ts';
import { plural } from '../lib/core/words.ts';
import { openDocument } from '../lib/formats/index.ts';
import { checkLocale, figuresOf, type TableFigures } from '../lib/workbench/table-figures.ts';
import { onlyFile, readBytes } from './files.ts';
import type { Arguments, ExitCode } from './command.ts';

export const USAGE = 'heptarch figures FILE [--locale de-DE] [--json]';

/** Lists what the cells of a document's tables amount to, and checks its typed sums. */
export async function figuresCommand(args: Arguments): Promise<ExitCode> {
	const file = onlyFile(args, USAGE);
	const locale = typeof args.values.locale === 'string' ? args.values.locale : undefined;
	if (locale !== undefined) checkLocale(locale);
	const document = await openDocument(await readBytes(file), file);
	const tables = document.tables.map((entry) => figuresOf(entry, locale));
	if (args.values.json) console.log(JSON.stringify({ tables }, null, 2));
	else
		for (const { index, numbers, figures, worked, sums } of tables) {
			const mark = numbers.decimal === '.' ? 'point' : 'comma';
			console.log(`Table ${index + 1}: ${plural(figures.length, 'figure')}, decimal ${mark}: ${numbers.why}.`);
			if (numbers.doubt) console.log(`    ${numbers.doubt}`);
			for (const { r, c, text, without, problem } of worked) {
				const place = `row ${r + 1}, column ${c + 1}`;
				if (problem) console.log(`    ${place}: no figure, ${problem}.`);
				else console.log(`    ${place}: worked out, ${text || 'empty'}.`);
				if (without.length) console.log(`    ${place}: ${withoutWords({ without })}.`);
			}
			for (const { r, c, should, says, right, without, problem } of sums) {
				const place = `row ${r + 1}, column ${c + 1}, “${says}”`;
				if (problem) console.log(`    ${place}: no sum, ${problem}.`);
				else if (!right) console.log(`    ${place}: should be ${should}.`);
				if (without.length) console.log(`    ${place}: ${withoutWords({ without })}.`);
			}
		}
	const isWrong = ({ worked, sums }: TableFigures) =>
		worked.some(({ problem }) => problem !== null) ||
		sums.some(({ right, problem }) => problem !== null || right === false);
	return tables.some(isWrong) ? 1 : 0;
}
