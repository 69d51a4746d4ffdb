import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { DEMO_STYLES } from '../../../demo/styles/index.ts';
import { resolve } from '../../../src/lib/core/cascade/resolve.ts';
import { FIRST_HOUSE, NO_HOUSE } from '../../../src/lib/core/house.ts';
import { flatten } from '../../../src/lib/core/style/inherit.ts';
import { partHelp, RANKS } from '../../../src/lib/core/style/parts.ts';
import { leafWords, valueWords } from '../../../src/lib/core/style/words.ts';
import { LEAVES } from '../../../src/lib/core/properties/index.ts';
import { partsOfRank } from '../../../src/lib/workbench/parts.ts';
import { builtInSpecimen } from '../../../src/lib/workbench/specimen.ts';
import { Stylebook } from '../../../src/lib/workbench/stylebook.ts';
import { stateTable } from '../../../src/lib/workbench/table.ts';
import { style, table } from '../support.ts';

describe('a table as a person decided it', () => {
	const entry = { table: table(['header:1', 'body', 'body'], 3, { firstColumns: 1 }) };
	it('is as recognised where nothing was decided', () => {
		assert.equal(stateTable(entry, undefined), entry.table);
		assert.deepEqual(stateTable(entry, {}).roles, entry.table.roles);
	});
	it('takes corrections, and names its columns anew', () => {
		const corrected = stateTable(entry, {
			roles: { 1: 'header:2', 2: 'total' },
			kinds: { 2: 'money' },
			firstColumns: 2,
			lastColumns: 9,
			partsOff: ['header'],
			carry: ['fill']
		});
		assert.deepEqual(corrected.roles, ['header:1', 'header:2', 'total']);
		assert.deepEqual(
			corrected.columnInfo.map(({ kind, name }) => `${kind} ${name}`),
			['text r1c0', 'text r1c1', 'money r1c2']
		);
		assert.deepEqual([corrected.firstColumns, corrected.lastColumns], [2, 3], 'no more columns than there are');
		assert.deepEqual([corrected.partsOff, corrected.carry], [['header'], ['fill']]);
		assert.deepEqual(entry.table.roles, ['header:1', 'body', 'body'], 'what it was made from is as it was');
	});
});

describe('the Stylebook', () => {
	const ids = DEMO_STYLES.map((definition, i) => ({
		id: `id${i}`,
		definition: {
			...definition,
			basedOn: definition.basedOn ? `id${DEMO_STYLES.findIndex(({ name }) => name === definition.basedOn)}` : null
		}
	}));
	const book = new Stylebook(ids, FIRST_HOUSE);
	it('finds bases by id and resolves each style once', () => {
		const ledger = ids.find(({ definition }) => definition.name === 'Season Ledger')!;
		assert.equal(book.flat(ledger.id), book.flat(ledger.id));
		assert.equal(book.flat(ledger.id).parts.get('ground')!.get('text.role')!.style, 'House base');
		assert.equal(book.get(undefined), undefined);
	});
	it('has a sentence for every style, no two the same', () => {
		const sentences = ids.map(({ id }) => book.sentence(id));
		assert.equal(new Set(sentences).size, sentences.length);
		for (const sentence of sentences) assert.match(sentence, /^[A-Z].*\.$/);
	});
});

describe('the parts that the bench offers', () => {
	it('are all of the ranks that a style can set, and whatever else it has', () => {
		const flat = flatten(
			style({ 'columns:"Cost"': { rotate: 90 }, 'header:4': { rotate: 90 }, 'rowBand:3': { rotate: 90 } })
		);
		assert.deepEqual(partsOfRank(1, flat), ['ground']);
		assert.ok(partsOfRank(2, flat).includes('rowBand:3') && partsOfRank(2, flat).includes('columnBand:2'));
		assert.ok(partsOfRank(3, flat).includes('columns:"Cost"') && partsOfRank(3, flat).includes('columns:money'));
		assert.ok(partsOfRank(4, flat).includes('header:3') && partsOfRank(4, flat).includes('subtotal:1'));
		assert.equal(partsOfRank(5, flat).length, 4);
		assert.deepEqual(partsOfRank(7, flat), []);
		for (const { rank } of RANKS) assert.equal(new Set(partsOfRank(rank, flat)).size, partsOfRank(rank, flat).length);
	});
});

describe('the built-in specimen', () => {
	const { table: specimen, content } = builtInSpecimen();
	it('exercises every row role, and is recognised without help', () => {
		assert.deepEqual([...new Set(specimen.roles.map((role) => role.split(':')[0]))].sort(), [
			'body',
			'group',
			'header',
			'note',
			'subtotal',
			'title',
			'total'
		]);
		assert.deepEqual(
			specimen.columnInfo.map(({ kind }) => kind),
			['text', 'code', 'count', 'percent', 'quantity', 'money', 'date', 'mixed']
		);
		const shows = resolve(specimen, flatten(style({})), NO_HOUSE).structure.signatures.flatMap(({ parts }) =>
			parts.map(({ name }) => name)
		);
		for (const { rank } of RANKS.slice(0, 5))
			for (const part of partsOfRank(rank, flatten(style({})))) {
				assert.match(partHelp(part), /^Rules [^.]+\. .+\.$/, part);
				assert.ok(shows.includes(part) || /^(header:|subtotal:|group:)[3-9]/.test(part), part);
			}
		assert.equal(content.length, specimen.cells.length);
	});
});

describe('words', () => {
	it('every leaf has its own', () => {
		const words = LEAVES.map(({ path }) => leafWords(path));
		assert.equal(new Set(words).size, words.length);
		assert.equal(leafWords('lines.top.pattern'), 'line above');
		assert.equal(leafWords('lines.betweenRows.weight'), 'lines between rows, weight');
	});
	it('values are said as people say them', () => {
		assert.equal(valueWords('fill.tint', 0.08), '8 %');
		assert.equal(valueWords('text.italic', false), 'upright');
		assert.equal(valueWords('rotate', 90), '90°');
		assert.equal(valueWords('keep.together', true), 'yes');
	});
});
