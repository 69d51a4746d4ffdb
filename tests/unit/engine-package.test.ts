import assert from 'node:assert/strict';
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { after, before, describe, it } from 'node:test';
import { seasonReport } from '../../demo/documents/season-report.ts';
import { DEMO_STYLES } from '../../demo/styles/index.ts';
import { FIRST_HOUSE } from '../../src/lib/core/house.ts';
import { selfContained } from '../../src/lib/core/style/export.ts';
import { readDocx } from '../../src/lib/formats/docx/read.ts';

const ROOT = resolve(import.meta.dirname, '../..');

describe('the engine as a package', () => {
	const folder = mkdtempSync(join(tmpdir(), 'heptarch-package-'));
	const run = (program: string, ...args: string[]) =>
		execFileSync(program, args, { cwd: folder, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
	before(async () => {
		execFileSync('node', [join(ROOT, 'scripts', 'pack.mjs'), folder], { cwd: ROOT, stdio: 'pipe' });
		writeFileSync(join(folder, 'package.json'), '{ "name": "elsewhere", "private": true, "type": "module" }');
		run('npm', 'install', '--prefer-offline', '--no-audit', '--no-fund', './heptarch-0.1.0.tgz');
		writeFileSync(join(folder, 'report.docx'), await seasonReport());
		const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
		const ledger = selfContained(find('Season Ledger')!, FIRST_HOUSE, find);
		writeFileSync(join(folder, 'ledger.json'), JSON.stringify(ledger));
	});
	after(() => rmSync(folder, { recursive: true, force: true }));

	it('does in an empty folder what its example says', async () => {
		const [, example] = /```js\n([\s\S]*?)```/.exec(readFileSync(join(ROOT, 'docs', 'engine-package.md'), 'utf8'))!;
		writeFileSync(join(folder, 'example.js'), example!);
		const said = run('node', 'example.js', 'report.docx', 'ledger.json', 'out.docx');
		assert.match(said, /table 4: row \d+, column \d+: total is off by/);
		assert.match(said, /The fill of the first cell comes from header\./);
		assert.match(said, /9 tables in Season Ledger; read back, 0 differences\./);
		const { tables } = await readDocx(new Uint8Array(readFileSync(join(folder, 'out.docx'))));
		assert.ok(tables.every(({ carried }) => carried?.style === 'Season Ledger'));
	});
	it('has the command line, and neither database nor interface', () => {
		const read = spawnSync('npx', ['--no-install', 'heptarch', 'read', 'report.docx'], {
			cwd: folder,
			encoding: 'utf8'
		});
		assert.equal(read.status, 1, 'it has a finding');
		assert.match(read.stdout, /Table 9: 4 rows × 2 columns/);
		for (const name of ['pg', 'kysely', 'svelte', 'echarts', '@sveltejs/kit'])
			assert.equal(existsSync(join(folder, 'node_modules', name)), false, name);
	});
	it('has types: a wrong call is found before it runs', () => {
		writeFileSync(
			join(folder, 'typed.ts'),
			`import { readDocument, write, type Style } from 'heptarch';
			export const all = async (bytes: Uint8Array, style: Style): Promise<Uint8Array> => {
				const document = await readDocument(bytes, 'a.docx');
				// @ts-expect-error a wish is for a table by its number
				await write(document, [{ table: 'first', style }]);
				return (await write(document, [{ table: 0, style }], { to: 'odt' })).bytes;
			};`
		);
		const tsc = join(ROOT, 'node_modules', 'typescript', 'bin', 'tsc');
		const options = { noEmit: true, strict: true, skipLibCheck: true, module: 'nodenext', target: 'es2023', types: [] };
		writeFileSync(join(folder, 'tsconfig.json'), JSON.stringify({ compilerOptions: options, files: ['typed.ts'] }));
		run('node', tsc);
	});
});
