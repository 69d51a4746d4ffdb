import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { describe, it } from 'node:test';
import { Ajv } from 'ajv';
import fc from 'fast-check';
import { SaxesParser } from 'saxes';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { judge, LEVELS, POLICY_RULES, type Policy, type Subject } from '../../../../src/lib/core/policy/policy.ts';
import { checkPolicy } from '../../../../src/lib/core/policy/validate.ts';
import { asJunit, asSarif, fails, inWords, type JudgedFile } from '../../../../src/lib/core/policy/report.ts';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import { createGrid } from '../../../../src/lib/core/table/grid.ts';
import { fromPoints } from '../../../../src/lib/core/units.ts';
import { bareAppearance } from '../../../../src/lib/formats/bare.ts';
import type { Look } from '../../../../src/lib/core/cascade/look.ts';

const policyOf = (...rules: object[]): Policy => checkPolicy({ format: 'heptarch-policy', version: 1, rules });
function subject(rows: string[], { look = {}, ...more }: Partial<Subject> & { look?: Look } = {}): Subject {
	const { table, recognition } = recognisedTable(
		createGrid(rows.map((row) => row.split('|').map((cell) => cell.trim())))
	);
	return {
		table,
		appearance: { ...bareAppearance(table), looks: [look] },
		purpose: recognition.purpose.is,
		where: 'body',
		caption: 'Table 1: Costs',
		wears: 'Season Ledger',
		touches: [],
		...more
	};
}
const COSTS = ['Item | Cost', 'Seed | £12.00', 'Glass | £30.50', 'Total | £42.50'];
const faults = (rule: object, ...of: Parameters<typeof subject>) =>
	judge(policyOf({ level: 'must', ...rule }), subject(...of)).map(({ words, r, c }) =>
		[words, r, c].filter((one) => one !== undefined).join(' ')
	);

describe('a policy', () => {
	it('lets a table pass that is as it wants, by every rule', () => {
		const all = policyOf(
			{ rule: 'wears-style', level: 'must', styles: ['Season Ledger'] },
			...['header', 'totals-right', 'figures-aligned', 'no-touches', 'caption'].map((rule) => ({
				rule,
				level: 'must'
			})),
			{ rule: 'contrast', level: 'must', least: 7 },
			{ rule: 'type-size', level: 'must', least: 8 }
		);
		assert.equal(all.rules.length, POLICY_RULES.length);
		assert.deepEqual(judge(all, subject(COSTS, { look: { ink: '#222222', size: fromPoints(9) } })), []);
	});
	it('says what each rule has against one that is not', () => {
		assert.deepEqual(faults({ rule: 'wears-style', styles: ['A'] }, COSTS), [
			'it wears “Season Ledger”, which is none of those wanted'
		]);
		assert.deepEqual(faults({ rule: 'wears-style', styles: ['A'] }, COSTS, { wears: undefined }), [
			'it wears no house style'
		]);
		assert.deepEqual(faults({ rule: 'header' }, COSTS.slice(1)), ['no row is recognised as a header']);
		assert.deepEqual(faults({ rule: 'totals-right' }, [...COSTS.slice(0, 3), 'Total | £43.50']), [
			'total is off by £1.00 3 1'
		]);
		assert.deepEqual(faults({ rule: 'contrast', least: 4.5 }, COSTS, { look: { ink: '#bbbbbb' } }), [
			'“Item” has a contrast of 1.9:1 0 0'
		]);
		assert.deepEqual(faults({ rule: 'type-size', least: 8 }, COSTS, { look: { size: fromPoints(6.5) } }), [
			'“Item” is set in 6.5 pt 0 0'
		]);
		assert.deepEqual(faults({ rule: 'figures-aligned' }, COSTS, { look: { h: 'start' } }), [
			'column 2 “Cost”: 2 of 2 figures do not stand at the end 1'
		]);
		assert.deepEqual(faults({ rule: 'no-touches' }, COSTS, { touches: [{ r: 1, c: 1, set: {} }] }), [
			'1 cell of its own set against its style 1 1'
		]);
		assert.deepEqual(faults({ rule: 'caption' }, COSTS, { caption: undefined }), ['it has no caption']);
	});
	it('does not speak of forms and layout tables, or of what it leaves out', () => {
		const form = ['Name: | ', 'Street: | ', 'Signature: | '];
		assert.deepEqual(faults({ rule: 'header' }, form), []);
		const strict = { ...policyOf({ rule: 'caption', level: 'must' }), leavesOut: [] };
		assert.equal(judge(strict, subject(form, { caption: undefined })).length, 1);
	});
	it('that cannot be read is refused with its place', () => {
		const refused = (value: unknown, where: string, words: RegExp) =>
			assert.throws(
				() => checkPolicy(value),
				(error) => error instanceof InputError && error.where === where && words.test(error.message)
			);
		const of = (...rules: unknown[]) => ({ format: 'heptarch-policy', version: 1, rules });
		refused({ format: 'heptarch-style' }, '/', /“version” is missing|“rules” is missing/);
		refused(of({ rule: 'contrast', level: 'must' }), '/rules/0', /“least” is missing/);
		refused(of({ rule: 'header', level: 'often' }), '/rules/0/level', /not one of wish, warning, must/);
		refused(of({ rule: 'header', level: 'must', least: 3 }), '/rules/0', /“least” is not a property/);
		refused(of({ rule: 'dust', level: 'must' }), '/rules/0/rule', /not one of/);
	});
});

/** Made-up outcomes, with text of every sort in them. */
const anyText = fc.string({ unit: 'grapheme', maxLength: 20 });
const anyOutcome: fc.Arbitrary<JudgedFile[]> = fc.uniqueArray(
	fc.record({
		file: fc.stringMatching(/^[a-z &<"']{1,8}(\/[a-z ü]{1,6})?\.docx$/),
		tables: fc.array(
			fc.record({
				number: fc.integer({ min: 1, max: 99 }),
				faults: fc.array(
					fc.record({
						rule: fc.constantFrom('header', 'caption', 'contrast'),
						level: fc.constantFrom(...LEVELS),
						wanted: anyText,
						words: anyText,
						r: fc.option(fc.nat(20), { nil: undefined }),
						c: fc.option(fc.nat(20), { nil: undefined })
					}) as fc.Arbitrary<JudgedFile['tables'][number]['faults'][number]>,
					{ maxLength: 3 }
				)
			}),
			{ maxLength: 3 }
		)
	}),
	{ maxLength: 3, selector: ({ file }) => file }
);
const policy = policyOf(
	{ rule: 'header', level: 'must' },
	{ rule: 'caption', level: 'wish' },
	{ rule: 'contrast', level: 'warning', least: 4.5 }
);

describe('what comes of a policy', () => {
	it('is a log that the published schema of SARIF 2.1.0 takes', () => {
		// The published schema is of draft 4, of which it uses nothing that later drafts have otherwise but these two.
		const {
			$schema: _,
			id: _id,
			...schema
		} = JSON.parse(readFileSync(new URL('./sarif-schema-2.1.0.json', import.meta.url), 'utf8')) as Record<
			string,
			unknown
		>;
		const validate = new Ajv({ strict: false, validateFormats: false, unicodeRegExp: false }).compile(schema);
		assert.equal(validate({ version: '2.1.0' }), false, 'it does refuse');
		fc.assert(
			fc.property(anyOutcome, (files) => {
				assert.ok(validate(asSarif(policy, files, '0.1.0')), JSON.stringify(validate.errors?.[0]));
			})
		);
	});
	it('is well-formed JUnit XML that counts what must be so', () => {
		fc.assert(
			fc.property(anyOutcome, (files) => {
				const failures: number[] = [];
				let cases = 0;
				const parser = new SaxesParser();
				parser.on('error', (error) => assert.fail(error));
				parser.on('opentag', ({ name, attributes }) => {
					if (name === 'testsuite') failures.push(Number(attributes.failures));
					if (name === 'testcase') cases++;
				});
				parser.write(asJunit(files)).close();
				assert.equal(
					cases,
					files.reduce((sum, { tables }) => sum + tables.length, 0)
				);
				assert.equal(
					failures.some((count) => count > 0),
					fails(files)
				);
			})
		);
	});
	it('is a line of words for each fault and one that counts them', () => {
		const found = judge(policy, subject(COSTS.slice(1), { caption: undefined, look: { ink: '#cccccc' } }));
		assert.deepEqual(inWords([{ file: 'a.docx', tables: [{ number: 2, faults: found }] }]), [
			'a.docx, table 2, must: no row is recognised as a header (header)',
			'a.docx, table 2, wish: it has no caption (caption)',
			'a.docx, table 2, warning: row 1, column 1: “Seed” has a contrast of 1.6:1 (contrast)',
			'1 must fails, 1 warning, 1 wish in 1 file.'
		]);
		assert.deepEqual(inWords([{ file: 'a.docx', tables: [] }]), ['Nothing to mention.']);
	});
});
