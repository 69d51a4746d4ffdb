import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync, existsSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it, mock } from 'node:test';
import { handbook } from '../../../demo/documents/handbook.ts';
import { fernBed } from '../../../demo/drawings/index.ts';
import { seasonReport } from '../../../demo/documents/season-report.ts';
import { DEMO_STYLES } from '../../../demo/styles/index.ts';
import { main } from '../../../src/cli/main.ts';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { styleText } from '../../../src/lib/core/style/canonical.ts';
import { selfContained } from '../../../src/lib/core/style/export.ts';
import { docx, p } from '../formats/documents.ts';

const root = join(import.meta.dirname, '..', '..', '..');
const folder = mkdtempSync(join(tmpdir(), 'heptarch-cli-'));
const at = (name: string) => join(folder, name);
/** Runs a command as a shell does. */
function asProcess(...args: string[]) {
	const { status, stdout, stderr } = spawnSync(process.execPath, [join(root, 'src/cli/heptarch.mjs'), ...args], {
		encoding: 'utf8',
		cwd: folder
	});
	return { status, stdout, stderr };
}
/** Runs a command here: starting a process for each takes longer than all that they do. */
async function run(...args: string[]) {
	const said = { log: '', error: '' };
	const listening = (['log', 'error'] as const).map((stream) =>
		mock.method(console, stream, (text: string) => void (said[stream] += `${text}\n`))
	);
	const before = process.cwd();
	process.chdir(folder);
	try {
		return { status: await main(args), stdout: said.log, stderr: said.error };
	} finally {
		process.chdir(before);
		for (const { mock: own } of listening) own.restore();
	}
}

before(async () => {
	writeFileSync(at('report.docx'), await seasonReport());
	writeFileSync(at('handbook.docx'), await handbook());
	const ledger = DEMO_STYLES.find(({ name }) => name === 'Season Ledger')!;
	writeFileSync(
		at('ledger.json'),
		styleText(selfContained(ledger, FIRST_HOUSE, (name) => DEMO_STYLES.find((style) => style.name === name)))
	);
});
after(() => rmSync(folder, { recursive: true, force: true }));

describe('heptarch read', () => {
	it('lists tables in words, and exits 1 for a finding', async () => {
		const { status, stdout } = asProcess('read', 'report.docx');
		assert.equal(status, 1);
		assert.match(stdout, /Table 2: 11 rows × 5 columns, in the text, “Table 2: Visitors and takings by glasshouse”/);
		assert.match(stdout, /row 11: total \(44 001 is the exact sum of the 2 subtotals\)/);
		assert.match(stdout, /finding: row 6, column 4: total is off by € 0\.30/);
		assert.match(stdout, /Table 9: 4 rows × 2 columns, inside table 8/);
	});
	it('gives table files as JSON that resolve takes', async () => {
		const { status, stdout } = await run('read', 'handbook.docx', '--json');
		assert.equal(status, 0);
		const { tables } = JSON.parse(stdout);
		assert.equal(tables.length, 3);
		assert.deepEqual(
			tables[1].columns.map(({ kind }: { kind: string }) => kind),
			['code', 'text', 'count', 'money', 'money']
		);
		writeFileSync(at('table.json'), JSON.stringify(tables[1]));
		const resolved = await run('resolve', 'table.json', '--style', 'ledger.json');
		assert.equal(resolved.status, 0, resolved.stderr);
		const { cells, edges } = JSON.parse(resolved.stdout);
		assert.equal(cells.length, 30);
		assert.equal(edges.length, 7 * 5 + 6 * 6);
		assert.deepEqual(cells[0].leaves['fill.ink'], { value: 'fern', rank: 4, part: 'header', style: 'Season Ledger' });
	});
});

describe('heptarch resolve', () => {
	it('traces one cell', async () => {
		const { status, stdout } = await run('resolve', 'table.json', '--style', 'ledger.json', '--trace', '6,5');
		assert.equal(status, 0);
		const { leaves, edges } = JSON.parse(stdout);
		assert.deepEqual(
			leaves['text.weight'].map(({ part }: { part: string }) => part),
			['total', 'ground']
		);
		assert.equal(edges.top.part, 'total');
		for (const none of ['99,1', '0,1', '1,0', '1'])
			assert.equal((await run('resolve', 'table.json', '--style', 'ledger.json', '--trace', none)).status, 2, none);
	});
});

describe('heptarch apply', () => {
	it('styles chosen tables, with an account, and the file comes back wearing it', async () => {
		const { status, stdout } = await run(
			'apply',
			'report.docx',
			'--style',
			'ledger.json',
			'--tables',
			'1,3-4',
			'--parts=-rowBand',
			'--out',
			'out.docx',
			'--json'
		);
		assert.equal(status, 0);
		const { tables } = JSON.parse(stdout);
		assert.deepEqual(
			tables.map(({ index }: { index: number }) => index),
			[0, 2, 3]
		);
		assert.ok(
			tables.every(
				({ differences, living }: { differences: []; living: number }) => differences.length === 0 && living > 0
			)
		);
		const back = JSON.parse((await run('read', 'out.docx', '--json')).stdout).tables;
		assert.deepEqual(back.map(({ about }: { about: { wears: string | null } }) => about.wears).slice(0, 4), [
			'Season Ledger',
			null,
			'Season Ledger',
			'Season Ledger'
		]);
		assert.deepEqual(back[0].partsOff, ['rowBand']);
	});
	it('writes another format by the ending of the file, and reads it again', async () => {
		for (const kind of ['odt', 'html', 'csv', 'json']) {
			const { status, stdout } = await run('apply', 'report.docx', '--style', 'ledger.json', '--out', `out.${kind}`);
			assert.equal(status, 0, stdout);
			assert.match(stdout, new RegExp(`9 of 9 tables in “Season Ledger”, written to out\\.${kind}`));
		}
		for (const kind of ['odt', 'html']) {
			const back = JSON.parse((await run('read', `out.${kind}`, '--json')).stdout) as {
				kind: string;
				tables: { about: { wears: string } }[];
			};
			assert.equal(back.kind, kind);
			assert.ok(back.tables.every(({ about }) => about.wears === 'Season Ledger'));
		}
	});
	it('says what is wrong and writes nothing', async () => {
		const style = (value: unknown, name = 'bad.json') =>
			writeFileSync(at(name), typeof value === 'string' ? value : JSON.stringify(value));
		const blank = { format: 'heptarch-style', version: 1, name: 'A', parts: {} };
		const fails = async (expected: RegExp, ...args: string[]) => {
			const { status, stderr, stdout } = await run(...args);
			assert.equal(status, 2, stderr);
			assert.match(stderr, expected);
			assert.doesNotMatch(stderr, /\n {4}at /, 'no stack');
			assert.equal(stdout, '');
		};
		const apply = (file: string, style = 'ledger.json', ...rest: string[]) => [
			'apply',
			file,
			'--style',
			style,
			'--out',
			'never.docx',
			...rest
		];
		writeFileSync(at('renamed.docx'), 'Dear reader');
		writeFileSync(at('cut.docx'), readFileSync(at('report.docx')).subarray(0, 5000));
		await fails(/does not begin like one/, ...apply('renamed.docx'));
		await fails(/incomplete/, ...apply('cut.docx'));
		await fails(/there is no such file/, ...apply('gone.docx'));
		style({ ...blank, colour: 1 });
		await fails(/bad\.json.*“colour” is not a property/, ...apply('report.docx', 'bad.json'));
		style({ ...blank, basedOn: 'B', bases: [{ ...blank, name: 'B', basedOn: 'A' }] });
		await fails(/A → B → A/, ...apply('report.docx', 'bad.json'));
		style('{');
		await fails(/is not JSON/, ...apply('report.docx', 'bad.json'));
		style({ ...blank, parts: { ground: { fill: { ink: 'moonlight' } } } });
		await fails(/moonlight/, ...apply('report.docx', 'bad.json'));
		await fails(/There is no table 12/, ...apply('report.docx', 'ledger.json', '--tables', '12'));
		await fails(/“colour” is not something to carry/, ...apply('report.docx', 'ledger.json', '--carry', 'colour'));
		await fails(/--parts takes part names/, ...apply('report.docx', 'ledger.json', '--parts=rowBand'));
		await fails(/--style is missing/, 'apply', 'report.docx', '--out', 'never.docx');
		await fails(
			/no format that can be written/,
			'apply',
			'report.docx',
			'--style',
			'ledger.json',
			'--out',
			'never.rtf'
		);
		await fails(/There is no command/, 'paint');
		assert.ok(!existsSync(at('never.docx')));
		assert.deepEqual(
			readdirSync(folder).filter((name) => name.endsWith('.part')),
			[]
		);
	});
	it('has nothing to do in a document without a table', async () => {
		writeFileSync(at('plain.docx'), await docx({ body: p('only text') }));
		assert.equal((await run('read', 'plain.docx')).stdout.trim(), '“plain.docx” holds no table.');
		assert.match(
			(await run('apply', 'plain.docx', '--style', 'ledger.json', '--out', 'never.docx')).stderr,
			/holds no table/
		);
	});
});

describe('heptarch lift, census, check', () => {
	it('lifts a style that is valid and worth having', async () => {
		const { status, stdout } = await run('lift', 'report.docx', '--table', '1', '--out', 'lifted.json', '--json');
		const { settings, reproduced, touches } = JSON.parse(stdout);
		assert.equal(status, touches.length ? 1 : 0);
		assert.ok(settings > 3 && reproduced > 0.9);
		assert.equal(
			(await run('apply', 'report.docx', '--style', 'lifted.json', '--tables', '1', '--out', 'again.docx')).status,
			0
		);
		assert.equal((await run('lift', 'report.docx', '--table', '99', '--out', 'x.json')).status, 2);
	});
	it('counts looks: nine hands, and one after one style', async () => {
		const before = JSON.parse((await run('census', 'report.docx', '--json')).stdout);
		assert.equal(before.tables, 9);
		assert.ok(before.groups.length >= 7);
		await run('apply', 'report.docx', '--style', 'ledger.json', '--out', 'styled.docx');
		const after = await run('census', 'styled.docx', '--json');
		assert.ok(JSON.parse(after.stdout).groups.length < before.groups.length);
		assert.equal((await run('census')).status, 2);
	});
	it('finds the total that is off', async () => {
		const { status, stdout } = await run('check', 'report.docx');
		assert.equal(status, 1);
		assert.match(stdout, /table 4: .*off by € 0\.30/);
	});
});

describe('heptarch schedule', () => {
	const PLANTS = {
		format: 'heptarch-schedule',
		version: 1,
		title: 'Plants by supplier',
		rows: 'merged',
		columns: [
			{ from: 'attribute', attribute: 'supplier', name: 'From' },
			{ from: 'count', name: 'No.' }
		],
		sort: [{ by: 'From', order: 'rising' }],
		total: true,
		place: { x: '60mm', y: '200mm', corner: 'bottom-start', reads: 'up', textHeight: '2.5mm' }
	};
	const spec = (name: string, value: unknown) => writeFileSync(at(name), JSON.stringify(value));
	before(async () => {
		writeFileSync(at('fern.svg'), await fernBed());
		spec('plants.json', PLANTS);
	});

	it('makes a schedule where the specification says, then reads it again: the same drawing, the same bytes', async () => {
		const made = await run('schedule', 'fern.svg', '--spec', 'plants.json', '--out', 'one.svg', '--json');
		const said = JSON.parse(made.stdout);
		assert.deepEqual([said.made, said.rows, said.added, said.differences], [true, 3, [], []]);
		assert.match(said.findings.join(), /It covers \d+ objects/);
		assert.equal(made.status, 1, 'a finding');
		const again = await run('schedule', 'one.svg', '--spec', 'plants.json', '--out', 'two.svg');
		assert.match(again.stdout, /“Plants by supplier” read again: 0 rows added, 0 gone, 0 cells changed/);
		assert.deepEqual(readFileSync(at('two.svg')), readFileSync(at('one.svg')));
		const read = JSON.parse((await run('read', 'one.svg', '--json')).stdout);
		assert.deepEqual(read.tables.at(-1).rows, ['title', 'total', 'body', 'body', 'body', 'header:1']);
	});
	it('tells rows added, gone and cells changed', async () => {
		const drawing = readFileSync(at('one.svg'), 'utf8');
		writeFileSync(
			at('later.svg'),
			drawing.replaceAll('data-supplier="Stillwater Plants"', 'data-supplier="Beck Nursery"')
		);
		const { stdout } = await run('schedule', 'later.svg', '--spec', 'plants.json', '--out', 'three.svg', '--json');
		const { added, gone, changed } = JSON.parse(stdout);
		assert.deepEqual([added.length, gone.length], [0, 0]);
		assert.deepEqual(
			changed.map(({ column, was, is }: { column: string; was: string; is: string }) => [column, was, is]),
			[['From', 'Stillwater Plants', 'Beck Nursery']],
			'the row is known by its objects'
		);
	});
	it('says what is wrong and writes nothing', async () => {
		spec('twice.json', { ...PLANTS, columns: [PLANTS.columns[0], PLANTS.columns[0]] });
		spec('corner.json', { ...PLANTS, place: { corner: 'middle' } });
		spec('bare.json', { format: 'heptarch-schedule', version: 1, title: 'x', rows: 'some', columns: [] });
		for (const [name, words] of [
			['twice.json', /Two columns are called “From”/],
			['corner.json', /“corner” is one of/],
			['bare.json', /This is not a valid schedule/],
			['gone.json', /there is no such file/]
		] as const) {
			const { status, stderr } = await run('schedule', 'fern.svg', '--spec', name, '--out', 'none.svg');
			assert.equal(status, 2);
			assert.match(stderr, words);
		}
		assert.match(
			(await run('schedule', 'report.docx', '--spec', 'plants.json', '--out', 'none.svg')).stderr,
			/is no SVG drawing/
		);
		assert.ok(!existsSync(at('none.svg')));
	});
	it('check says where a schedule is behind its drawing, and how it plots', async () => {
		const { status, stdout } = await run('check', 'fern.svg', 'one.svg');
		assert.equal(status, 1);
		assert.match(stdout, /fern\.svg, table 1: It is 4 changes behind its drawing/);
		assert.match(stdout, /one\.svg, table 4: It covers \d+ objects of the drawing/);
	});
	it('apply gives the tables of a drawing a style', async () => {
		const { status, stdout } = await run('apply', 'fern.svg', '--style', 'ledger.json', '--out', 'ledger.svg');
		assert.equal(status, 0);
		assert.match(stdout, /3 of 3 tables in “Season Ledger”/);
		assert.match(stdout, /Table 1: \d+ settings as living style, 0 as direct formatting; read-back: no differences/);
		assert.match((await run('read', 'ledger.svg')).stdout, /on the sheet, “Planting schedule”/);
	});
});

describe('heptarch figures', () => {
	const figures = async (csv: string, ...more: string[]) => {
		writeFileSync(at('figures.csv'), csv);
		const { status, stdout } = await run('figures', 'figures.csv', '--json', ...more);
		const { tables } = JSON.parse(stdout) as {
			tables: {
				numbers: { decimal: string; grouping: string | null; doubt: string | null };
				figures: { r: number; c: number; amount: string; measure: object }[];
				sums: { r: number; c: number; covers: number[]; should: string; right: boolean; without: number[] }[];
			}[];
		};
		return { status, ...tables[0]! };
	};
	it('gives exact amounts with their measures, whatever the locale they are written in', async () => {
		const {
			status,
			numbers,
			figures: found
		} = await figures('Item;Cost;Share;Length\nSeed;1.234,50 €;19 %;1,250 m\nGlass;2,50 €;7,5 %;300 mm\n');
		assert.equal(status, 0);
		assert.deepEqual([numbers.decimal, numbers.grouping, numbers.doubt], [',', '.', null]);
		assert.deepEqual(
			found.map(({ amount, measure }) => [amount, measure]),
			[
				['1234.5', { kind: 'money', currency: 'EUR' }],
				['0.19', { kind: 'percent' }],
				['1.25', { kind: 'unit', unit: 'm' }],
				['2.5', { kind: 'money', currency: 'EUR' }],
				['0.075', { kind: 'percent' }],
				['300', { kind: 'unit', unit: 'mm' }]
			]
		);
	});
	it('says which typed sums are off, and by which rows; exit code 1', async () => {
		const { status, sums } = await figures('Item,Cost\na,€ 1.50\nb,€ 2.25\nc,€ 3.00\nTotal,€ 6.70\n');
		assert.equal(status, 1);
		assert.deepEqual(sums, [
			{
				r: 4,
				c: 1,
				covers: [1, 2, 3],
				should: '6.75',
				measure: { kind: 'money', currency: 'EUR' },
				says: '€ 6.70',
				right: false,
				without: [],
				problem: null
			}
		]);
	});
	it('asks where nothing tells the mark; the locale decides meanwhile', async () => {
		const csv = 'Item,Weight\na,1.250\nb,2.375\nc,3.125\n';
		const english = await figures(csv);
		assert.match(english.numbers.doubt!, /“1\.250” is read as 1\.25; or is it 1250\?/);
		assert.equal(english.figures[0]!.amount, '1.25');
		assert.equal((await figures(csv, '--locale', 'de-DE')).figures[0]!.amount, '1250');
		assert.equal((await run('figures', 'figures.csv', '--locale', 'no such')).status, 2);
	});
	it('reads dates with strokes by the locale where they do not tell, and asks', async () => {
		const csv = 'Bed,Planted\na,04/05/2031\nb,06/07/2031\n';
		assert.equal((await figures(csv)).figures[0]!.amount, '2031-05-04');
		const american = await figures(csv, '--locale', 'en-US');
		assert.equal(american.figures[0]!.amount, '2031-04-05');
		assert.match(american.numbers.doubt!, /“04\/05\/2031” is read as 5 April 2031; or is it 4 May 2031\?/);
		const told = await figures(`${csv}c,13/06/2031\n`, '--locale', 'en-US');
		assert.deepEqual([told.figures[0]!.amount, told.numbers.doubt], ['2031-05-04', null]);
	});
	it('works out formulas and totals of a table file; exit code 1 where one has no figure', async () => {
		const file = (count: string) =>
			writeFileSync(
				at('bill.table.json'),
				JSON.stringify({
					format: 'heptarch-table',
					version: 1,
					cells: [
						['Plant', 'Count', 'Price', 'Cost'],
						['Fern', count, '€ 3.10', ''],
						['Moss', '3', '€ 0.85', ''],
						['Total', '', '', '']
					],
					rows: ['header:1', 'body', 'body', 'total'],
					columns: [{}, { kind: 'count' }, {}, { formula: 'Price × Count ÷ 3' }],
					totals: [{ r: 3, c: 3, is: 'sum' }]
				})
			);
		const worked = async () => {
			const { status, stdout } = await run('figures', 'bill.table.json', '--json');
			const { tables } = JSON.parse(stdout) as { tables: { worked: Record<string, unknown>[] }[] };
			return { status, worked: tables[0]!.worked };
		};
		file('7');
		const right = await worked();
		assert.equal(right.status, 0);
		assert.deepEqual(right.worked.at(-1), {
			r: 3,
			c: 3,
			text: '€ 8.08',
			amount: '8.083333333333333333333333333333333333333',
			measure: { kind: 'money', currency: 'EUR' },
			without: [],
			problem: null
		});
		file('many');
		const wrong = await worked();
		assert.equal(wrong.status, 1);
		assert.deepEqual(wrong.worked[0], {
			r: 1,
			c: 3,
			text: '',
			amount: null,
			measure: null,
			without: [],
			problem: '“Count” has no number'
		});
		assert.deepEqual(wrong.worked.at(-1)!.without, [1]);
		assert.match((await run('figures', 'bill.table.json')).stdout, /row 2, column 4: no figure, “Count” has no number/);
	});
	it('takes a sign of several currencies by the locale', async () => {
		const measures = async (...more: string[]) =>
			(await figures('Item,Cost\na,5.50 kr\nb,7.25 kr\n', ...more)).figures.map(({ measure }) => measure);
		assert.deepEqual(await measures(), []);
		assert.deepEqual((await measures('--locale', 'da-DK'))[0], { kind: 'money', currency: 'DKK' });
	});
});

describe('heptarch on forms, newer files and policies', () => {
	const blanks = (...labels: string[]) => labels.map((label) => `<td>${label}</td><td></td>`).join('');
	const form = `<table><tr><td colspan="4">Application</td></tr><tr>${blanks('Surname', 'First name')}</tr><tr>${blanks('Date', 'Signature')}</tr></table>`;
	const costs = (seed: string) =>
		`<table><tr><th>Item</th><th>Cost</th></tr><tr><td>Seed</td><td>£${seed}</td></tr><tr><td>Glass</td><td>£30.50</td></tr><tr><td>Total</td><td>£42.50</td></tr></table>`;
	before(() => {
		writeFileSync(at('old.html'), `<!doctype html><title>x</title>${form}<p>and</p>${costs('12.00')}`);
		writeFileSync(at('new.html'), `<!doctype html><title>x</title>${costs('13.00')}<p>and</p>${form}`);
		writeFileSync(
			at('policy.json'),
			JSON.stringify({
				format: 'heptarch-policy',
				version: 1,
				rules: [
					{ rule: 'totals-right', level: 'must' },
					{ rule: 'caption', level: 'wish' }
				]
			})
		);
		writeFileSync(
			at('plain.json'),
			styleText({ format: 'heptarch-style', version: 1, name: 'Plain', parts: { header: { text: { weight: 700 } } } })
		);
	});

	it('reads what a table is for, and leaves forms as they are unless they are named', async () => {
		const { tables } = JSON.parse((await run('read', 'old.html', '--json')).stdout) as {
			tables: { purpose: { purpose: string; sure: number; why: string[] } }[];
		};
		assert.deepEqual(
			tables.map(({ purpose }) => purpose.purpose),
			['form', 'data']
		);
		assert.ok(tables.every(({ purpose }) => purpose.sure >= 0.5 && purpose.why.length));
		const applied = await run('apply', 'old.html', '--style', 'plain.json', '--out', 'out.html');
		assert.match(applied.stdout, /1 of 2 tables in “Plain”/);
		assert.match(applied.stdout, /1 form left as found: table 1\. --tables takes them in\./);
		assert.match(
			(await run('apply', 'old.html', '--style', 'plain.json', '--tables', '1,2', '--out', 'out.html')).stdout,
			/2 of 2 tables/
		);
	});
	it('pairs the tables of a newer file, and ends with 1 where something differs', async () => {
		const { status, stdout } = await run('pair', 'old.html', 'new.html', '--json');
		assert.equal(status, 1);
		const {
			pairs,
			gone,
			new: fresh
		} = JSON.parse(stdout) as {
			pairs: { old: number; new: number; rows: object }[];
			gone: number[];
			new: number[];
		};
		assert.deepEqual(
			[pairs.map(({ old, new: now, rows }) => [old, now, rows]), gone, fresh],
			[
				[
					[0, 1, { added: [], gone: [], changed: [] }],
					[1, 0, { added: [], gone: [], changed: [[1, 1]] }]
				],
				[],
				[]
			]
		);
		assert.deepEqual(
			await run('pair', 'old.html', 'old.html').then((same) => [same.status, /Nothing differs/.test(same.stdout)]),
			[0, true]
		);
		assert.equal((await run('pair', 'old.html')).status, 2);
		assert.equal((await run('pair', 'old.html', 'none.html')).status, 2);
	});
	it('holds files against a policy, and ends with 1 where a must fails', async () => {
		assert.deepEqual(
			await run('check', '--policy', 'policy.json', 'old.html').then(({ status, stdout }) => [status, stdout]),
			[0, 'old.html, table 2, wish: it has no caption (caption)\n0 musts fail, 0 warnings, 1 wish in 1 file.\n']
		);
		const failing = await run('check', '--policy', 'policy.json', 'old.html', 'new.html');
		assert.equal(failing.status, 1);
		assert.match(failing.stdout, /new\.html, table 1, must: row 4, column 2: total is off by £1\.00/);
		const sarif = JSON.parse((await run('check', '--policy', 'policy.json', 'new.html', '--as', 'sarif')).stdout) as {
			runs: { results: { ruleId: string }[] }[];
		};
		assert.deepEqual(
			sarif.runs[0]!.results.map(({ ruleId }) => ruleId),
			['totals-right', 'caption']
		);
		assert.match(
			(await run('check', '--policy', 'policy.json', 'new.html', '--as', 'junit')).stdout,
			/<testsuite name="new.html" tests="2" failures="1"/
		);
		const wrong = await run('check', '--policy', 'plain.json', 'old.html');
		assert.deepEqual([wrong.status, /not a valid policy/.test(wrong.stderr)], [2, true]);
		assert.equal((await run('check', '--policy', 'policy.json', 'old.html', '--as', 'verse')).status, 2);
	});
});
