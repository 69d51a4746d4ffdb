import { InputError } from '../lib/core/errors.ts';
import { lowContrast } from '../lib/core/cascade/contrast.ts';
import { NUMERIC_KINDS, roleFamily } from '../lib/core/table/roles.ts';
import type { DocumentTable } from '../lib/formats/document.ts';
import { openDocument } from '../lib/formats/index.ts';
import { readBytes } from './files.ts';
import type { Arguments, ExitCode } from './main.ts';

interface Found {
	readonly kind: 'total-off' | 'contrast' | 'no-header' | 'not-aligned';
	readonly words: string;
}

/** What a person should look at in a table: sums, contrast, a missing header, figures that do not line up. */
export function findingsOf({ table, appearance, recognition }: DocumentTable): Found[] {
	const found: Found[] = recognition.findings.map(({ r, c, words }) => ({
		kind: 'total-off',
		words: `row ${r}, column ${c}: ${words}`
	}));
	for (const { cell, cells, ratio, wanted } of lowContrast(table.cells, appearance)) {
		const { r, c, text } = table.cells[cell]!;
		found.push({
			kind: 'contrast',
			words: `row ${r}, column ${c}, “${text.trim().slice(0, 24)}”: contrast ${ratio.toFixed(1)}:1, and ${wanted}:1 is needed${cells > 1 ? `; so have ${cells - 1} more` : ''}`
		});
	}
	if (table.rows > 2 && !table.roles.some((role) => roleFamily(role) === 'header'))
		found.push({ kind: 'no-header', words: 'no row is recognised as a header' });
	table.columnInfo.forEach(({ kind, name }, c) => {
		if (!NUMERIC_KINDS.has(kind)) return;
		const cells = table.cells.flatMap((cell, i) =>
			cell.c === c && cell.cols === 1 && roleFamily(table.roles[cell.r]!) === 'body' && cell.text.trim() ? [i] : []
		);
		const askew = cells.filter((i) => {
			const { h } = appearance.looks[appearance.cellLook[i]!]!;
			return h !== undefined && h !== 'end' && h !== 'decimal';
		});
		if (askew.length)
			found.push({
				kind: 'not-aligned',
				words: `column ${c}${name ? ` “${name}”` : ''}: ${askew.length} of ${cells.length} figures do not stand at the end`
			});
	});
	return found;
}

export async function checkCommand(args: Arguments): Promise<ExitCode> {
	if (args.positionals.length === 0) throw new InputError('usage', 'Name files.\nUsage: heptarch check FILE… [--json]');
	const files = [];
	for (const file of args.positionals) {
		const document = await openDocument(await readBytes(file), file);
		files.push({
			file,
			tables: document.tables.map((entry) => ({ number: entry.index + 1, findings: findingsOf(entry) }))
		});
	}
	const count = files.flatMap(({ tables }) => tables.flatMap(({ findings }) => findings)).length;
	if (args.values.json) console.log(JSON.stringify(files, null, 2));
	else {
		for (const { file, tables } of files)
			for (const { number, findings } of tables)
				for (const { words } of findings) console.log(`${file}, table ${number}: ${words}`);
		console.log(count ? `${count} finding(s).` : 'Nothing to mention.');
	}
	return count ? 1 : 0;
}
