import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { corrected, correctionsIn, shapeOf } from '../../../src/lib/workbench/corrections.ts';
import { table } from '../support.ts';

const cells = (...figures: string[]) => [
	['House', '2030', 'Takings'],
	['Lily court', figures[0]!, '58'],
	['  Of  which GUESTS ', figures[1]!, '12'],
	['Total', figures[2]!, '70']
];
const may = table(['header:1', 'body', 'body', 'total'], 3, {
	cells: cells('18', '4', '22'),
	columns: [
		{ kind: 'text', name: 'House' },
		{ kind: 'count', name: '2030' },
		{ kind: 'count', name: 'Takings' }
	]
});
const june = table(['header:1', 'body', 'body', 'body', 'total'], 3, {
	cells: [...cells('20', '6', '26').slice(0, 3), ['Gate', '1', '2'], ['Total', '27', '72']],
	columns: may.columnInfo.map(({ kind, name }) => ({ kind, name }))
});

describe('corrections of tables of one shape', () => {
	it('are for tables with as many columns under the same names, whatever the figures', () => {
		assert.equal(shapeOf(may), shapeOf(june));
		const years = table(['header:1', 'body', 'body', 'total'], 3, {
			cells: [['house ', '2031', 'takings'], ...cells('1', '2', '3').slice(1)]
		});
		assert.equal(shapeOf(years), shapeOf(may), 'another year, other letters, other spaces');
		const wider = table(['header:1', 'body'], 4, {
			cells: [
				['House', '2030', 'Takings', ''],
				['Lily court', '1', '2', '3']
			]
		});
		assert.notEqual(shapeOf(wider), shapeOf(may));
		const other = table(['header:1', 'body'], 3, { cells: [['Bed', '2030', 'Takings'], cells('1', '2', '3')[1]!] });
		assert.notEqual(shapeOf(other), shapeOf(may));
	});
	it('hold kinds by column and roles by what a row begins with', () => {
		const said = correctionsIn(may, { kinds: { 2: 'money' }, roles: { 2: 'note', 9: 'total' }, firstColumns: 0 });
		assert.deepEqual(said, { kinds: { 2: 'money' }, roles: { 'of which guests': 'note' }, firstColumns: 0 });
		assert.equal(correctionsIn(may, {}), undefined);
		assert.equal(correctionsIn(may, { partsOff: ['header'] }), undefined, 'what is worn is no correction');
	});
	it('are laid over another one where it was recognised otherwise', () => {
		const said = correctionsIn(may, {
			kinds: { 1: 'count', 2: 'money' },
			roles: { 2: 'note', 3: 'total' },
			lastColumns: 1
		})!;
		assert.deepEqual(corrected(june, said), { kinds: { 2: 'money' }, roles: { 2: 'note' }, lastColumns: 1 });
		assert.deepEqual(corrected(june, { kinds: { 7: 'money' }, firstColumns: june.firstColumns }), {});
		assert.deepEqual(corrected(june, {}), {});
	});
});
