// npm run mutate [-- --count 60 --seed 1 --changed REF PATH…]: how many small changes of the code do the tests notice?
//
// Makes one change at a time (an operator, a constant, a condition) in a copy of the code, runs the unit tests that import
// the changed file, the nearest first, until one fails, and prints by folder how many changes were noticed, and which were
// not. A change that no test notices is either not held by a test, or changes nothing that can be seen.
import { spawn, spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, relative, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import ts from 'typescript';
import { giveUp, root, say } from './machine.mjs';

const { values, positionals } = parseArgs({
	allowPositionals: true,
	options: {
		count: { type: 'string', default: '60' },
		seed: { type: 'string', default: '1' },
		/** Only files that differ from this commit. */
		changed: { type: 'string' }
	}
});
const COUNT = Number(values.count);
/** A change is given up as not noticed after so many test files. */
const MOST_FILES = 14;
/** A test file that takes longer has been led into an endless loop by the change: that is noticed. */
const PATIENCE = 120_000;

/** Numbers from 0 to 1, the same for the same seed (mulberry32). */
function randomFrom(seed) {
	let a = seed | 0;
	return () => {
		a = (a + 0x6d2b79f5) | 0;
		let t = Math.imul(a ^ (a >>> 15), 1 | a);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
	};
}
const random = randomFrom(Number(values.seed));

const K = ts.SyntaxKind;
const OTHER = new Map([
	[K.EqualsEqualsEqualsToken, '!=='],
	[K.ExclamationEqualsEqualsToken, '==='],
	[K.LessThanToken, '<='],
	[K.LessThanEqualsToken, '<'],
	[K.GreaterThanToken, '>='],
	[K.GreaterThanEqualsToken, '>'],
	[K.PlusToken, '-'],
	[K.MinusToken, '+'],
	[K.AsteriskToken, '/'],
	[K.SlashToken, '*'],
	[K.AmpersandAmpersandToken, '||'],
	[K.BarBarToken, '&&']
]);

/** All small changes that can be made to a file: each replaces a stretch of its text. */
function changesOf(file) {
	const text = readFileSync(file, 'utf8');
	const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
	const changes = [];
	const add = (node, put, what) => changes.push({ file, start: node.getStart(source), end: node.end, put, what });
	const visit = (node) => {
		// Types, imports and what a person reads are no computation.
		if (ts.isTypeNode(node) || ts.isImportDeclaration(node) || ts.isInterfaceDeclaration(node)) return;
		if (ts.isBinaryExpression(node)) {
			const { operatorToken: operator, left, right } = node;
			const isText = [left, right].some((side) => ts.isStringLiteralLike(side) || ts.isTemplateExpression(side));
			const put = OTHER.get(operator.kind);
			if (put && !(operator.kind === K.PlusToken && isText)) add(operator, put, `${operator.getText(source)} → ${put}`);
		} else if (ts.isNumericLiteral(node)) {
			if (!ts.isElementAccessExpression(node.parent))
				add(node, `(${node.text} + 1)`, `${node.text} → ${node.text} + 1`);
		} else if (node.kind === K.TrueKeyword || node.kind === K.FalseKeyword) {
			const put = node.kind === K.TrueKeyword ? 'false' : 'true';
			if (!ts.isLiteralTypeNode(node.parent)) add(node, put, `→ ${put}`);
		} else if (ts.isConditionalExpression(node) || ts.isIfStatement(node)) {
			const condition = ts.isIfStatement(node) ? node.expression : node.condition;
			const said = condition.getText(source);
			if (said.length < 200) add(condition, `!(${said})`, `!(${said.replace(/\s+/g, ' ').slice(0, 60)})`);
		}
		ts.forEachChild(node, visit);
	};
	visit(source);
	return changes;
}

const filesIn = (folder, ending) =>
	readdirSync(folder, { recursive: true, withFileTypes: true })
		.filter((entry) => entry.isFile() && entry.name.endsWith(ending))
		.map((entry) => join(entry.parentPath ?? entry.path, entry.name))
		.filter((file) => !file.endsWith('.d.ts'));

const imports = new Map();
/** The files that a file imports. */
function importsOf(file) {
	if (!imports.has(file))
		imports.set(
			file,
			[...readFileSync(file, 'utf8').matchAll(/(?:from|import)\s*\(?'(\.[^']*\.ts)'/g)].map(([, to]) =>
				resolve(dirname(file), to)
			)
		);
	return imports.get(file);
}
/** How many imports lead from a file to each that it needs. */
function distances(from) {
	const far = new Map([[from, 0]]);
	for (const [file, steps] of far) for (const to of importsOf(file)) if (!far.has(to)) far.set(to, steps + 1);
	return far;
}

const places = positionals.length ? positionals : ['src/lib/core', 'src/lib/formats'];
let sources = places.flatMap((place) =>
	place.endsWith('.ts') ? [resolve(root, place)] : filesIn(resolve(root, place), '.ts')
);
if (values.changed) {
	const { stdout } = spawnSync('git', ['diff', '--name-only', values.changed], { cwd: root, encoding: 'utf8' });
	const differ = new Set(stdout.split('\n').map((file) => join(root, file)));
	sources = sources.filter((file) => differ.has(file));
}
const all = sources.flatMap(changesOf);
if (!all.length) giveUp('There is nothing to change in these files.');
const chosen = [];
for (let left = [...all]; chosen.length < COUNT && left.length;)
	chosen.push(left.splice(Math.floor(random() * left.length), 1)[0]);

const tests = filesIn(join(root, 'tests/unit'), '.test.ts').filter((file) => !file.includes(join('unit', 'server')));
const reach = new Map(tests.map((file) => [file, distances(file)]));

const copy = mkdtempSync(join(tmpdir(), 'heptarch-mutate-'));
process.on('exit', () => rmSync(copy, { recursive: true, force: true }));
for (const entry of readdirSync(root))
	if (entry === 'node_modules') symlinkSync(join(root, entry), join(copy, entry));
	else if (!/^(\.git|build|\.svelte-kit|docs)$/.test(entry))
		cpSync(join(root, entry), join(copy, entry), { recursive: true });

/** Whether a test file passes in the copy. */
const passes = (file) =>
	new Promise((done) => {
		const child = spawn(process.execPath, ['--import', 'tsx', '--test', join(copy, relative(root, file))], {
			cwd: copy,
			stdio: 'ignore',
			detached: true
		});
		const timer = setTimeout(() => process.kill(-child.pid, 'SIGKILL'), PATIENCE);
		child.on('exit', (code) => {
			clearTimeout(timer);
			done(code === 0);
		});
	});

const tally = new Map();
const missed = [];
const share = (noticed, of) => `${noticed} of ${of} (${Math.round((100 * noticed) / of)} %)`;
function sumUp() {
	let of = 0;
	for (const [folder, [noticed, tried]] of [...tally].sort()) {
		of += tried;
		console.log(`${folder.padEnd(34)} ${share(noticed, tried)}`);
	}
	if (of) console.log(`noticed: ${share(of - missed.length, of)}`);
}
// What is known so far is told when somebody has no patience.
for (const sign of ['SIGINT', 'SIGTERM'])
	process.on(sign, () => {
		sumUp();
		process.exit(130);
	});
say(`${chosen.length} of ${all.length} possible changes in ${sources.length} files`);
for (const { file, start, end, put, what } of chosen) {
	const text = readFileSync(file, 'utf8');
	const place = join(copy, relative(root, file));
	writeFileSync(place, text.slice(0, start) + put + text.slice(end));
	const near = tests
		.filter((test) => reach.get(test).has(file))
		.sort((a, b) => reach.get(a).get(file) - reach.get(b).get(file))
		.slice(0, MOST_FILES);
	let isNoticed = false;
	for (const test of near)
		if (!(await passes(test))) {
			isNoticed = true;
			break;
		}
	writeFileSync(place, text);
	const folder = relative(root, dirname(file));
	const [noticed, of] = tally.get(folder) ?? [0, 0];
	tally.set(folder, [noticed + (isNoticed ? 1 : 0), of + 1]);
	const line = text.slice(0, start).split('\n').length;
	if (!isNoticed) {
		missed.push(`${relative(root, file)}:${line}  ${what}`);
		console.log(`not noticed: ${missed.at(-1)}`);
	}
}
sumUp();
