import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { describe, it } from 'node:test';

const SRC = resolve(import.meta.dirname, '../../src');
const IMPORTED = /^\s*(?:import|export)\s+(?:[^'"]*?\sfrom\s+)?['"]([^'"]+)['"]/gm;

/** Which files of `src` each of its files imports, types included; a component that stands in itself does not count. */
function imports(): Map<string, string[]> {
	const files = readdirSync(SRC, { recursive: true, encoding: 'utf8' })
		.filter((file) => /\.(ts|svelte)$/.test(file))
		.map((file) => join(SRC, file));
	const known = new Set(files);
	return new Map(
		files.map((file) => {
			const targets = [...readFileSync(file, 'utf8').matchAll(IMPORTED)].map(([, from]) =>
				from!.startsWith('$lib/') ? join(SRC, 'lib', from!.slice('$lib/'.length)) : resolve(dirname(file), from!)
			);
			return [file, targets.filter((target) => known.has(target) && target !== file)];
		})
	);
}

/** The files on a way from a file back to itself; undefined where there is none. */
function circleIn(graph: ReadonlyMap<string, readonly string[]>): string[] | undefined {
	const done = new Set<string>();
	const way: string[] = [];
	const follow = (file: string): string[] | undefined => {
		if (way.includes(file)) return [...way.slice(way.indexOf(file)), file];
		if (done.has(file)) return undefined;
		way.push(file);
		for (const next of graph.get(file) ?? []) {
			const circle = follow(next);
			if (circle) return circle;
		}
		way.pop();
		done.add(file);
		return undefined;
	};
	for (const file of graph.keys()) {
		const circle = follow(file);
		if (circle) return circle;
	}
	return undefined;
}

describe('the rooms of the code', () => {
	const graph = imports();
	const inside = (file: string) => file.slice(SRC.length + 1);

	it('a circle is found where there is one', () => {
		assert.deepEqual(
			circleIn(
				new Map([
					['a', ['b']],
					['b', ['c', 'd']],
					['c', []],
					['d', ['b']]
				])
			),
			['b', 'd', 'b']
		);
		assert.equal(
			circleIn(
				new Map([
					['a', ['b', 'c']],
					['b', ['c']],
					['c', []]
				])
			),
			undefined
		);
		assert.ok(graph.size > 300 && [...graph.values()].flat().length > 1000, 'imports are read');
	});

	it('lean on each other one way only: no file leads back to itself', () => {
		assert.deepEqual(circleIn(graph)?.map(inside), undefined);
	});

	it('the computation knows nothing of formats, server or screens, and formats nothing of server or screens', () => {
		const RESTS_ON: Record<string, readonly string[]> = {
			'lib/core/': ['lib/core/'],
			'lib/formats/': ['lib/core/', 'lib/formats/'],
			'lib/workbench/': ['lib/core/', 'lib/formats/', 'lib/workbench/']
		};
		const wrong = [...graph].flatMap(([file, targets]) => {
			const room = Object.keys(RESTS_ON).find((one) => inside(file).startsWith(one));
			return room
				? targets
						.map(inside)
						.filter((target) => !RESTS_ON[room]!.some((one) => target.startsWith(one)))
						.map((target) => `${inside(file)} → ${target}`)
				: [];
		});
		assert.deepEqual(wrong, []);
	});
});
