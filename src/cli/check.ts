import packageFile from '../../package.json' with { type: 'json' };
import { InputError } from '../lib/core/errors.ts';
import { openDocument, type AnyDocument } from '../lib/formats/index.ts';
import type { DocumentTable } from '../lib/formats/document.ts';
import { findingsIn, placedWords } from '../lib/core/findings/index.ts';
import { judge, type Policy, type Subject } from '../lib/core/policy/policy.ts';
import { checkPolicy } from '../lib/core/policy/validate.ts';
import { asJunit, asSarif, fails, inWords, type JudgedFile } from '../lib/core/policy/report.ts';
import { drawingFindings } from '../lib/workbench/plotted.ts';
import { plural } from '../lib/core/words.ts';
import { readBytes, readJson } from './files.ts';
import type { Arguments, ExitCode } from './command.ts';

export const USAGE =
	'heptarch check FILE… [--json], heptarch check --policy POLICY.json FILE… [--as words|json|sarif|junit]';
const WAYS = ['words', 'json', 'sarif', 'junit'] as const;
type Way = (typeof WAYS)[number];

export async function checkCommand(args: Arguments): Promise<ExitCode> {
	if (args.positionals.length === 0) throw new InputError('usage', `Name files.\nUsage: ${USAGE}`);
	const { policy, as } = args.values;
	if (policy !== undefined) return checkAgainst(args);
	if (as !== undefined) throw new InputError('usage', `--as goes with --policy.\nUsage: ${USAGE}`);
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

const subjectOf = ({ table, appearance, recognition, place, carried, wornName }: DocumentTable): Subject => ({
	table,
	appearance,
	purpose: recognition.purpose.is,
	where: place.where,
	caption: place.caption,
	wears: carried?.style ?? wornName ?? undefined,
	touches: carried?.touches ?? []
});

async function readPolicy(path: string): Promise<Policy> {
	try {
		return checkPolicy(await readJson(path));
	} catch (error) {
		if (error instanceof InputError && error.code === 'policy')
			throw new InputError('policy', `“${path}”: ${error.message}`, error.where);
		throw error;
	}
}

/** Holds files against a policy: ends with 1 where something fails that must be so. */
async function checkAgainst({ positionals, values }: Arguments): Promise<ExitCode> {
	const way = (values.as ?? (values.json ? 'json' : 'words')) as Way;
	if (!WAYS.includes(way)) throw new InputError('usage', `--as takes ${WAYS.join(', ')}, not “${way}”.`);
	const policy = await readPolicy(String(values.policy));
	const files: JudgedFile[] = [];
	for (const file of positionals) {
		const document: AnyDocument = await openDocument(await readBytes(file), file);
		files.push({
			file,
			tables: document.tables.map((entry) => ({ number: entry.index + 1, faults: judge(policy, subjectOf(entry)) }))
		});
	}
	if (way === 'json') console.log(JSON.stringify(files, null, 2));
	else if (way === 'sarif') console.log(JSON.stringify(asSarif(policy, files, packageFile.version), null, 2));
	else if (way === 'junit') console.log(asJunit(files));
	else for (const line of inWords(files)) console.log(line);
	return fails(files) ? 1 : 0;
}
