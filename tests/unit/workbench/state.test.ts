import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { mapTables, wornInstead, type DocumentState, type TableState } from '../../../src/lib/workbench/state.ts';
import { anyState } from './states.ts';

const GONE = '00000000-0000-4000-8000-000000000001';

describe('states of documents', () => {
	it('change table by table, and carry everything else along', () => {
		fc.assert(
			fc.property(anyState([GONE]), (state) => {
				const next = mapTables(state, (own) => ({ ...own, dropsEmphasis: true }));
				const { tables, ...rest } = next;
				const { tables: before, ...restBefore } = state;
				assert.deepEqual(rest, restBefore);
				assert.deepEqual(Object.keys(tables), Object.keys(before));
				assert.equal(
					mapTables(state, (own) => own),
					state
				);
			})
		);
	});

	it('lose nothing but the name of a style that is gone', () => {
		const instead = { style: 'another', edition: 4 };
		const replaced = (state: DocumentState) => mapTables(state, (own) => wornInstead(own, GONE, instead));
		fc.assert(
			fc.property(anyState([GONE]), (state) => {
				const next = replaced(state);
				assert.ok(!JSON.stringify(next).includes(GONE));
				const expected = Object.fromEntries(
					Object.entries(state.tables).map(([index, own]): [string, TableState] => {
						if (own.style !== GONE) return [index, own];
						const { edition: _edition, pinned: _pinned, ...rest } = own;
						return [index, { ...rest, ...instead }];
					})
				);
				assert.deepEqual(next, { ...state, tables: expected });
				assert.equal(replaced(next), next);
			})
		);
	});

	it('wear nothing of the house where a style goes without a replacement, and keep the rest', () => {
		assert.deepEqual(
			wornInstead<TableState>(
				{ style: GONE, edition: 2, partsOff: ['total'], roles: { 1: 'total' }, work: 7 },
				GONE,
				{}
			),
			{ partsOff: ['total'], roles: { 1: 'total' }, work: 7 }
		);
	});
});
