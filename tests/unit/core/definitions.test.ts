import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ASPECTS } from '../../../src/lib/core/properties/vocabulary.ts';
import { FIELDS, LEAVES, LOOK_FIELDS, PROPERTIES } from '../../../src/lib/core/properties/index.ts';
import { SECTIONS } from '../../../src/lib/core/properties/property.ts';
import { typedValue, valueFault } from '../../../src/lib/core/properties/typed.ts';
import { FINDING_KINDS, placedWords } from '../../../src/lib/core/findings/index.ts';
import { found } from '../../../src/lib/core/findings/finding.ts';
import { totalOff } from '../../../src/lib/core/findings/total-off.ts';
import { FORMATS } from '../../../src/lib/formats/formats.ts';
import { accepted, bareName, KINDS } from '../../../src/lib/formats/kinds.ts';
import { behaviour, LEVELED, MOST_LEVELS, ROLES, roleWords, type RowRole } from '../../../src/lib/core/roles/index.ts';
import { COMPARISONS } from '../../../src/lib/core/style/comparisons.ts';
import { conditionWords } from '../../../src/lib/core/style/conditions.ts';
import { parsePart, partWords } from '../../../src/lib/core/style/parts.ts';
import type { Condition, LeafValue } from '../../../src/lib/core/style/types.ts';
import { leafWords, valueWords } from '../../../src/lib/core/style/words.ts';
import { checkStyle } from '../../../src/lib/core/style/validate.ts';
import { DOCX_FIELDS } from '../../../src/lib/formats/docx/properties/fields.ts';
import { HTML_FIELDS } from '../../../src/lib/formats/html/properties/index.ts';
import { ODT_FIELDS } from '../../../src/lib/formats/odt/properties/index.ts';
import { style } from '../support.ts';

const unique = (values: readonly string[], what: string) =>
	assert.equal(new Set(values).size, values.length, `${what} are told apart`);
/** A value that the schema of a leaf takes. */
const sampleOf = (schema: Readonly<Record<string, unknown>>): LeafValue => {
	if (Array.isArray(schema.enum)) return (schema.enum as LeafValue[]).at(-1)!;
	if (schema.type === 'boolean') return true;
	if (schema.type === 'integer' || schema.type === 'number') return 1;
	const pattern = String(schema.pattern ?? '');
	return pattern.includes('A-Z') && pattern.includes('{3}') ? 'EUR' : pattern.includes('pt') ? '2pt' : 'fern';
};
const place = (path: string) => (path.startsWith('shadow') ? 'ground' : 'total');
const nested = (path: string, value: LeafValue): object =>
	path.split('.').reduceRight<unknown>((inside, step) => ({ [step]: inside }), value) as object;

describe('every property', () => {
	it('has leaves with a path, an aspect, words, and a heading of their own', () => {
		unique(
			LEAVES.map(({ path }) => path),
			'paths'
		);
		unique(
			LEAVES.map(({ path }) => leafWords(path)),
			'words'
		);
		for (const { section, leaves } of PROPERTIES) {
			assert.ok(SECTIONS.includes(section));
			for (const { aspect, label, path } of leaves) {
				assert.ok(aspect === null || ASPECTS.includes(aspect), path);
				assert.match(label, /^[A-Z][a-z ]+$/, path);
			}
		}
	});
	it('takes what its schema takes, in a style and as it is typed, and refuses the rest in a sentence', () => {
		for (const leaf of LEAVES) {
			const value = sampleOf(leaf.schema);
			assert.doesNotThrow(() => style({ [place(leaf.path)]: nested(leaf.path, value) }), leaf.path);
			assert.equal(valueFault(leaf, value), undefined, leaf.path);
			assert.ok(valueWords(leaf.path, value).length > 0, leaf.path);
			assert.throws(() =>
				checkStyle({
					format: 'heptarch-style',
					version: 1,
					name: 'x',
					parts: { ground: nested(leaf.path, { no: 1 } as never) }
				})
			);
			assert.match(valueFault(leaf, -999)!, /^.+\.$/, leaf.path);
			if (leaf.editor === 'length') {
				assert.deepEqual(typedValue(leaf, '2'), { value: '2pt' });
				assert.deepEqual(typedValue(leaf, ' 2,5 mm'), { value: '2.5 mm' });
				assert.match((typedValue(leaf, '500mm') as { fault: string }).fault, /^It is .+ at most\.$/, leaf.path);
				assert.ok('fault' in typedValue(leaf, '100000000in'), leaf.path);
			}
			if (leaf.editor === 'share') assert.deepEqual(typedValue(leaf, '12,5 %'), { value: 0.125 });
		}
	});
	it('makes fields that say what they are, and read a value back from the leaves that say it', () => {
		unique(LOOK_FIELDS, 'fields');
		unique(
			FIELDS.map(({ words }) => words),
			'words of fields'
		);
		const ink = (name: string | undefined) => (name?.startsWith('#') ? (name as `#${string}`) : undefined);
		for (const field of FIELDS) {
			const leaves = new Map(
				field.leaves.map((path) => {
					const leaf = LEAVES.find((one) => one.path === path)!;
					assert.ok(leaf, `${field.name} rests on leaves that there are`);
					return [path, { value: leaf.editor === 'ink' ? '#2F5D50' : sampleOf(leaf.schema) }] as const;
				})
			);
			const value = field.compute(leaves, { ink, below: () => undefined });
			assert.notEqual(value, undefined, field.name);
			assert.ok(field.say(value).length > 0, field.name);
			if (!field.lift) continue;
			const lifted = new Map(field.lift(value, (hex) => hex).map(([path, said]) => [path, { value: said }]));
			assert.deepEqual(field.compute(lifted, { ink, below: () => undefined }), value, field.name);
		}
	});
	it('is answered for by every format: how it says each field, or that it cannot', () => {
		for (const fields of [DOCX_FIELDS, HTML_FIELDS, ODT_FIELDS])
			assert.deepEqual(Object.keys(fields).sort(), [...LOOK_FIELDS].sort());
	});
});

describe('every role', () => {
	it('has words, a place, and the part that it says it has', () => {
		unique(
			ROLES.map(({ words }) => words),
			'roles'
		);
		unique(
			ROLES.map(({ strength }) => String(strength)),
			'places in rank IV'
		);
		for (const { family, part, levels, corners } of ROLES) {
			assert.equal(parsePart(family)?.rank, part ? 4 : undefined, family);
			assert.equal(parsePart(`${family}:${MOST_LEVELS}`)?.rank, levels ? 4 : undefined, family);
			assert.equal(parsePart(`${family}:${MOST_LEVELS + 1}`), undefined, family);
			if (corners) assert.equal(parsePart(`corner:${corners}-first`)?.rank, 5);
			if (part) assert.notEqual(partWords(levels ? `${family}:2` : family), family === part.words ? '' : family);
			const role = (levels ? `${family}:1` : family) as RowRole;
			assert.equal(behaviour(role).family, family);
			assert.ok(roleWords(role).length > 0);
		}
		assert.deepEqual([...LEVELED], ['header', 'group', 'subtotal']);
	});
	it('has levels up to nine and no further, in styles and in table files', () => {
		for (const family of LEVELED) {
			assert.doesNotThrow(() => style({ [`${family}:9`]: {} }));
			for (const level of ['0', '10', '165534', '9e9'])
				assert.throws(() => style({ [`${family}:${level}`]: {} }), /not a name that can stand here/);
		}
	});
});

describe('every comparison', () => {
	it('reads as words, and takes the values that it needs and no others', () => {
		const where = (is: string, value?: unknown) => ({ any: true, is, ...(value !== undefined && { value }) });
		const check = (condition: object) => style({}, { rules: [{ name: 'r', where: condition as Condition, set: {} }] });
		const right = { none: undefined, one: 'a', two: [1, 2], list: ['a', 3], count: 2 };
		const wrong = { none: undefined, one: [], two: [1], list: 'a', count: -3.5 };
		for (const { is, operands, words } of COMPARISONS) {
			assert.doesNotThrow(() => check(where(is, right[operands])), is);
			assert.ok(conditionWords(where(is, right[operands]) as Condition).includes(words.split('…')[0]!.trim()), is);
			if (operands === 'none') continue;
			assert.throws(() => check(where(is, wrong[operands])), /not a valid style/, is);
			if (operands !== 'count') assert.throws(() => check(where(is)), /“value” is missing/, is);
		}
	});
	it('is about a column, a kind or any cell, and about rows that there are', () => {
		const rule = (where: object) => style({}, { rules: [{ name: 'r', where: where as Condition, set: {} }] });
		assert.throws(() => rule({ column: 'A', kind: 'money', is: 'empty' }), /not about both/);
		assert.throws(() => rule({ column: 'A', any: true, is: 'empty' }), /not about both/);
		assert.throws(() => rule({ rows: ['bdy'], is: 'empty' }), /not written as it should be/);
		assert.doesNotThrow(() => rule({ rows: ['body', 'header', 'subtotal:2'], is: 'empty' }));
	});
});

describe('every kind of finding', () => {
	it('has a code of its own, and says what it is found in', () => {
		unique(
			FINDING_KINDS.map(({ code }) => code),
			'findings'
		);
		for (const { of } of FINDING_KINDS) assert.ok(of.length > 0);
	});
	it('is told with its place counted from 1, as its arguments count from 0', () => {
		const finding = found(totalOff, { role: 'subtotal', off: '0.30', should: '1.30' }, { r: 4, c: 2 });
		assert.deepEqual(
			[finding.kind, finding.r, finding.c, finding.args],
			['total-off', 4, 2, { role: 'subtotal', off: '0.30', should: '1.30' }]
		);
		assert.equal(placedWords(finding), 'row 5, column 3: subtotal is off by 0.30');
	});
});

describe('every format', () => {
	it('has a kind, endings and words of its own; what is offered comes from the list', () => {
		unique(
			KINDS.map(({ kind }) => kind),
			'kinds'
		);
		unique(
			KINDS.flatMap(({ endings }) => endings),
			'endings'
		);
		unique(
			KINDS.map(({ words }) => words),
			'words'
		);
		for (const { kind, endings, opens } of KINDS) {
			const format = FORMATS[kind];
			assert.equal(format.kind, kind);
			assert.equal(endings[0], kind, 'the usual ending comes first');
			assert.ok(format.make || format.whyNot, `${kind}: makes files, or says why not`);
			assert.equal(opens, !!(format.sniff && format.open && format.write), `${kind}: can be told, opened and written`);
			for (const ending of endings) assert.equal(accepted().split(',').includes(`.${ending}`), opens, ending);
		}
		assert.equal(bareName('Beds.2031.TABLE.json'), 'Beds.2031');
	});
});
