import { placedWords } from '../lib/core/findings/index.ts';
import { figureFindings } from '../lib/workbench/findings.ts';
import { tableRead } from '../lib/workbench/table-read.ts';
import { purposeName } from '../lib/core/recognise/purpose/kinds.ts';
import { roleWords } from '../lib/core/roles/index.ts';
import type { DocumentTable } from '../lib/formats/document.ts';
import { openDocument } from '../lib/formats/index.ts';
import { onlyFile, readBytes } from './files.ts';
import type { Arguments, ExitCode } from './command.ts';

export async function readCommand(args: Arguments): Promise<ExitCode> {
	const file = onlyFile(args, 'heptarch read FILE [--json]');
	const document = await openDocument(await readBytes(file), file);
	const isWrong = document.tables.some((entry) =>
		figureFindings(entry).some(({ kind }) => kind === 'total-off' || kind === 'units-mixed')
	);
	const remarks = [...document.remarks, ...(document.ownRemarks ?? [])];
	if (args.values.json) {
		const tables = document.tables.map((entry) => tableRead(entry));
		console.log(JSON.stringify({ file, kind: document.kind, remarks, tables }, null, 2));
		return isWrong ? 1 : 0;
	}
	if (document.tables.length === 0) console.log(`“${file}” holds no table.`);
	for (const remark of remarks) console.log(remark);
	for (const entry of document.tables) {
		const { table, recognition, place } = entry;
		const name = place.caption ?? place.heading;
		console.log(
			`Table ${entry.index + 1}: ${table.rows} rows × ${table.columns} columns, ${placeWords(entry)}${name ? `, “${name}”` : ''}`
		);
		const { is, reasons } = recognition.purpose;
		console.log(`  is ${purposeName(is)} (${reasons[0]})`);
		const worn = entry.carried?.style ?? entry.wornName;
		console.log(`  wears: ${worn ? `${worn}${entry.carried ? ' (house style)' : " (the file's own)"}` : 'no style'}`);
		let from = 0;
		table.roles.forEach((role, r) => {
			const next = table.roles[r + 1];
			const reason = recognition.rows[r]!.reasons[0];
			const goesOn = next === role && recognition.rows[r + 1]!.reasons[0] === reason;
			if (goesOn) return;
			console.log(`  ${from === r ? `row ${from + 1}` : `rows ${from + 1}–${r + 1}`}: ${roleWords(role)} (${reason})`);
			from = r + 1;
		});
		table.columnInfo.forEach(({ kind, name: columnName }, c) =>
			console.log(
				`  column ${c + 1}${columnName ? ` “${columnName.replace(/\s+/g, ' ')}”` : ''}: ${kind} (${recognition.columns[c]!.reasons[0]})`
			)
		);
		for (const finding of figureFindings(entry)) console.log(`  finding: ${placedWords(finding)}`);
	}
	return isWrong ? 1 : 0;
}

export function placeWords({ place }: DocumentTable): string {
	if (place.where === 'nested') return `inside table ${place.inside! + 1}`;
	if (place.where === 'body') return 'in the text';
	if (place.where === 'sheet') return 'on the sheet';
	return place.where === 'text box' ? 'in a text box' : `in the ${place.where}`;
}
