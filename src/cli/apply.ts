import { pluralWord } from '../lib/core/words.ts';
import { basename } from 'node:path';
import { InputError } from '../lib/core/errors.ts';
import { parsePart } from '../lib/core/style/parts.ts';
import { ASPECTS, type Aspect } from '../lib/core/style/types.ts';
import { bareName, OUT_KINDS, type OutKind } from '../lib/formats/index.ts';
import { readDocument, write } from '../engine/index.ts';
import { TRAVELS, type Travel } from '../lib/formats/job.ts';
import { isLeftOut, leftOutWords } from '../lib/core/recognise/purpose/kinds.ts';
import { onlyFile, readBytes, readStyle, required, writeWhole } from './files.ts';
import type { Arguments, ExitCode } from './command.ts';

const USAGE =
	'heptarch apply FILE --style STYLE.json [--tables 1,3-5] [--parts=-rowBand,+total] [--carry text,fill,…] [--as living|living-only|direct] --out OUT [--json]';

/** "1,3-5" → [0, 2, 3, 4]. */
export function parseTables(text: string, count: number): number[] {
	const chosen = new Set<number>();
	for (const piece of text.split(',')) {
		const match = /^\s*(\d+)\s*(?:-\s*(\d+)\s*)?$/.exec(piece);
		if (!match) throw new InputError('usage', `--tables takes numbers and ranges such as 1,3-5, not “${piece}”.`);
		const from = Number(match[1]);
		const to = Number(match[2] ?? match[1]);
		if (from < 1 || to > count || from > to)
			throw new InputError('usage', `There is no table ${piece.trim()}: the document has ${count} table(s).`);
		for (let n = from; n <= to; n++) chosen.add(n - 1);
	}
	return [...chosen].sort((a, b) => a - b);
}

const FAMILIES = new Set(['rowBand', 'columnBand', 'columns', 'corner', 'rules']);

/** "-rowBand,+total" on top of what is off already. */
export function changeParts(off: readonly string[], text: string): string[] {
	const result = new Set(off);
	for (const piece of text.split(',').map((part) => part.trim())) {
		const name = piece.slice(1);
		if (!/^[+-]/.test(piece) || !(FAMILIES.has(name) || name.startsWith('rule:') || parsePart(name)))
			throw new InputError(
				'usage',
				`--parts takes part names with + or - before them, such as -rowBand,+total, not “${piece}”.`
			);
		if (piece.startsWith('-')) result.add(name);
		else result.delete(name);
	}
	return [...result];
}

export function parseCarry(text: string): Aspect[] {
	const wanted = text.split(',').map((aspect) => aspect.trim());
	for (const aspect of wanted)
		if (!ASPECTS.includes(aspect as Aspect))
			throw new InputError('usage', `“${aspect}” is not something to carry; there are: ${ASPECTS.join(', ')}.`);
	return ASPECTS.filter((aspect) => wanted.includes(aspect));
}

export async function applyCommand(args: Arguments): Promise<ExitCode> {
	const file = onlyFile(args, USAGE);
	const out = required(args, 'out', USAGE);
	const style = await readStyle(required(args, 'style', USAGE));
	const as = (args.values.as ?? 'living') as Travel;
	if (!TRAVELS.includes(as)) throw new InputError('usage', `--as takes ${TRAVELS.join(', ')}, not “${as}”.`);
	const kind = out.split('.').at(-1)?.toLowerCase() as OutKind;
	if (!OUT_KINDS.includes(kind))
		throw new InputError(
			'usage',
			`The ending of “${out}” says no format that can be written; there are: ${OUT_KINDS.map((one) => `.${one}`).join(', ')}.`
		);
	const document = await readDocument(await readBytes(file), file);
	if (document.tables.length === 0)
		throw new InputError('no-table', `“${file}” holds no table, so there is nothing to style.`, file);
	const chosen =
		typeof args.values.tables === 'string'
			? parseTables(args.values.tables, document.tables.length)
			: document.tables.flatMap(({ index, recognition }) => (isLeftOut(recognition.purpose.is) ? [] : [index]));
	const left = document.tables.filter(
		({ index, recognition }) => isLeftOut(recognition.purpose.is) && !chosen.includes(index)
	);
	const leftWords = leftOutWords(left.map(({ recognition }) => recognition.purpose.is));
	const { parts, carry } = args.values;
	const wishes = chosen.map((table) => ({
		table,
		style,
		...(typeof parts === 'string' && { partsOff: changeParts(document.tables[table]!.table.partsOff, parts) }),
		...(typeof carry === 'string' && { carry: parseCarry(carry) })
	}));
	const { bytes, account } = await write(document, wishes, { to: kind, as, title: bareName(basename(file)) });
	await writeWhole(out, bytes);

	const differences = account.tables.reduce((sum, table) => sum + table.differences.length, 0);
	if (args.values.json)
		console.log(
			JSON.stringify(
				{
					out,
					style: style.name,
					...account,
					leftOut: left.map(({ index, recognition }) => ({ index, purpose: recognition.purpose.is }))
				},
				null,
				2
			)
		);
	else {
		for (const remark of account.remarks) console.log(remark);
		console.log(`${account.tables.length} of ${document.tables.length} tables in “${style.name}”, written to ${out}.`);
		if (leftWords)
			console.log(
				`${leftWords} left as found: ${left.map(({ index }) => `table ${index + 1}`).join(', ')}. --tables takes them in.`
			);
		for (const { index, living, direct, lost, lostWhat, differences: found } of account.tables) {
			const cannot = lost ? `, ${lost} not sayable in ${kind.toUpperCase()} (${Object.keys(lostWhat).join(', ')})` : '';
			console.log(
				`Table ${index + 1}: ${living} settings as living style, ${direct} as direct formatting${cannot}; read-back: ${found.length || 'no'} ${pluralWord(found.length, 'difference')}.`
			);
			for (const { r, c, what, wanted, got } of found.slice(0, 10))
				console.log(`    row ${r + 1}, column ${c + 1}, ${what}: wanted ${wanted}, got ${got}`);
			if (found.length > 10) console.log(`    … and ${found.length - 10} more`);
		}
	}
	return differences > 0 ? 1 : 0;
}
