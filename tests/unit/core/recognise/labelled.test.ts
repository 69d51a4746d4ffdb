import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import { recognise } from '../../../../src/lib/core/recognise/recognise.ts';
import type { Grid } from '../../../../src/lib/core/table/grid.ts';
import { gridOf } from './labelled.ts';

const ROLES: Record<string, string> = {
	T: 'title',
	H1: 'header:1',
	H2: 'header:2',
	H3: 'header:3',
	G: 'group:1',
	B: 'body',
	S: 'subtotal:1',
	Z: 'total',
	N: 'note'
};
const KINDS: Record<string, string> = {
	t: 'text',
	c: 'code',
	n: 'count',
	q: 'quantity',
	m: 'money',
	p: 'percent',
	d: 'date',
	x: 'mixed'
};

interface Labelled {
	readonly name: string;
	readonly language: string;
	readonly grid: Grid;
	readonly roles: readonly string[];
	readonly kinds: readonly string[];
}

function labelledTables(): Labelled[] {
	const text = readFileSync(new URL('./labelled.txt', import.meta.url), 'utf8');
	return text
		.split(/^== /m)
		.slice(1)
		.map((block) => {
			const [head, ...lines] = block.trim().split('\n');
			const [name, language, kinds] = head!.split(/,\s*(?=[a-z]{2},)|(?<=,\s*[a-z]{2}),\s*/);
			const rows = lines.map((line) => {
				const [role, cells] = line.split('»');
				return { role: ROLES[role!.trim()]!, cells: cells!.split('|').map((cell) => cell.trim()) };
			});
			return {
				name: name!,
				language: language!,
				grid: gridOf(rows.map(({ cells }) => cells)),
				roles: rows.map(({ role }) => role),
				kinds: kinds!
					.trim()
					.split(' ')
					.map((kind) => KINDS[kind]!)
			};
		});
}

test('at least 98 % of row roles and 95 % of column kinds of the labelled tables are right', () => {
	const tables = labelledTables();
	assert.ok(tables.length >= 60, `${tables.length} tables`);
	assert.ok(new Set(tables.map(({ language }) => language)).size >= 8);
	const misses: string[] = [];
	const count = { roles: 0, rightRoles: 0, kinds: 0, rightKinds: 0 };
	for (const { name, grid, roles, kinds } of tables) {
		const found = recognise(grid);
		assert.equal(kinds.length, grid.columns, name);
		roles.forEach((role, r) => {
			count.roles++;
			if (found.rows[r]!.is === role) count.rightRoles++;
			else
				misses.push(
					`${name}, row ${r + 1}: ${found.rows[r]!.is} instead of ${role} (${found.rows[r]!.reasons.join('; ')})`
				);
		});
		kinds.forEach((kind, c) => {
			count.kinds++;
			if (found.columns[c]!.is === kind) count.rightKinds++;
			else
				misses.push(
					`${name}, column ${c + 1}: ${found.columns[c]!.is} instead of ${kind} (${found.columns[c]!.reasons.join('; ')})`
				);
		});
	}
	const share = (right: number, all: number) => (100 * right) / all;
	const roles = share(count.rightRoles, count.roles);
	const kinds = share(count.rightKinds, count.kinds);
	console.log(
		`recognised in ${tables.length} tables: ${roles.toFixed(1)} % of ${count.roles} row roles, ${kinds.toFixed(1)} % of ${count.kinds} column kinds`
	);
	for (const miss of misses) console.log(`  ${miss}`);
	assert.ok(roles >= 98, `${roles} % of row roles`);
	assert.ok(kinds >= 95, `${kinds} % of column kinds`);
});
