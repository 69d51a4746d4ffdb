import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { DocumentState, TableState } from '../../../src/lib/workbench/state.ts';
import { readState } from '../../../src/lib/workbench/stored.ts';
import { anyState } from './states.ts';

const state = anyState(['aaaaaaaa-0000-4000-8000-000000000000']);
/** What no version of the program should have stored. */
const broken = fc.oneof(
	fc.constantFrom<unknown>(
		{ roles: { 0: 'group:165534' } },
		{ roles: { 0: 'header:0' } },
		{ kinds: { 1: 'bogus' } },
		{ touches: [{ r: 0, c: 0, set: { text: { size: 'tall' } } }] },
		{ style: 'Beacon' },
		{ firstColumns: -1 },
		{ somethingElse: true },
		null,
		[]
	),
	fc.string(),
	fc.integer()
);

describe('a stored state', () => {
	it('is read as it was kept', () => {
		fc.assert(fc.property(state, (kept) => assert.equal(readState(kept), kept)));
	});

	it('that cannot be read in one table is read in all others, says why, and loses nothing of what was stored', () => {
		fc.assert(
			fc.property(state, fc.nat({ max: 60 }), broken, (kept, index, stored) => {
				const read = readState({ ...kept, tables: { ...kept.tables, [index]: stored as TableState } });
				const { [index]: own, ...others } = read.tables;
				const { [index]: _own, ...before } = kept.tables;
				assert.deepEqual(others, before);
				assert.deepEqual({ ...read, tables: 0 }, { ...kept, tables: 0 });
				assert.deepEqual(Object.keys(own!), ['unreadable']);
				assert.deepEqual(own!.unreadable!.stored, stored);
				assert.match(own!.unreadable!.why, / is ./);
				assert.equal(readState(read), read, 'what says so is readable itself');
			})
		);
	});

	it('says in words what cannot be read', () => {
		const why = (stored: unknown) => readState({ tables: { 0: stored as TableState } }).tables[0]!.unreadable!.why;
		assert.equal(why({ roles: { 3: 'group:165534' } }), 'roles 3 is "group:165534"');
		assert.equal(why(null), 'it is null');
		assert.match(why({ style: 'x'.repeat(500) }), /^style is "x{59}…$/);
	});

	it('is the same where nothing is said', () => {
		const empty: DocumentState = { tables: {} };
		assert.equal(readState(empty), empty);
	});
});
