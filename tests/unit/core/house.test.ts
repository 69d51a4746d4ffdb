import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { formerAfter, inkOf, NO_HOUSE, nowCalled, typeRoleOf, type House } from '../../../src/lib/core/house.ts';

const NAMES = ['fern', 'moss', 'leaf', 'constructor', '__proto__'] as const;
const anyName = fc.constantFrom(...NAMES);
const without = (inks: Readonly<Record<string, string>>, name: string) =>
	Object.fromEntries(Object.entries(inks).filter(([other]) => other !== name));

/** What a house goes through: each change with what it renamed. */
const anyChange = fc.oneof(
	fc.record({ kind: fc.constant('ink' as const), name: anyName, to: fc.constantFrom('#111111', '#222222', '#333333') }),
	fc.record({
		kind: fc.constantFrom('rename' as const, 'replace' as const, 'remove' as const),
		name: anyName,
		to: anyName
	})
);

describe('names that a house had', () => {
	it('go on meaning the ink that they named, whatever it is called now, or what it was', () => {
		fc.assert(
			fc.property(fc.array(anyChange, { maxLength: 20 }), (changes) => {
				let house: House = NO_HOUSE;
				/** Inks by identity, and which of them each name last stood for. */
				const colours: (string | undefined)[] = [];
				const last: string[] = [];
				const stoodFor = new Map<string, number>();
				for (const { kind, name, to } of changes) {
					const has = Object.hasOwn(house.inks, name);
					let inks = house.inks;
					let renamed = {};
					if (kind === 'ink') {
						inks = { ...without(inks, name), ...Object.fromEntries([[name, to]]) };
						if (!has) stoodFor.set(name, colours.length);
						colours[stoodFor.get(name)!] = to;
						last[stoodFor.get(name)!] = to;
					} else if (!has || name === to) continue;
					else if (kind === 'rename') {
						if (Object.hasOwn(inks, to)) continue;
						inks = { ...without(inks, name), ...Object.fromEntries([[to, inks[name]!]]) };
						renamed = { inks: Object.fromEntries([[name, to]]) };
						stoodFor.set(to, stoodFor.get(name)!);
					} else if (kind === 'replace') {
						if (!Object.hasOwn(inks, to)) continue;
						inks = without(inks, name);
						renamed = { inks: Object.fromEntries([[name, to]]) };
						const [gone, stays] = [stoodFor.get(name)!, stoodFor.get(to)!];
						for (const [one, ink] of stoodFor) if (ink === gone) stoodFor.set(one, stays);
					} else {
						inks = without(inks, name);
						colours[stoodFor.get(name)!] = undefined;
					}
					house = { inks, typeRoles: {}, former: formerAfter(house, { inks, typeRoles: {} }, renamed) };
				}
				for (const [name, ink] of stoodFor) {
					assert.equal(inkOf(house, name), colours[ink] ?? last[ink], `${name} in ${JSON.stringify(house)}`);
					if (colours[ink] !== undefined)
						assert.ok(Object.hasOwn(house.inks, nowCalled(house.inks, house.former?.inks, name)), name);
				}
				for (const name of NAMES) if (!stoodFor.has(name)) assert.equal(inkOf(house, name), undefined);
			})
		);
	});
	it('the same for type roles', () => {
		const figures = { family: 'Source Sans 3' };
		const before: House = { inks: {}, typeRoles: { figures, label: { family: 'IBM Plex Sans' } } };
		const after = { inks: {}, typeRoles: { numbers: figures } };
		const house = { ...after, former: formerAfter(before, after, { typeRoles: { figures: 'numbers' } }) };
		assert.deepEqual(typeRoleOf(house, 'figures'), figures);
		assert.deepEqual(typeRoleOf(house, 'label'), { family: 'IBM Plex Sans' });
		assert.equal(typeRoleOf(house, 'toString'), undefined);
	});
});
