import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { appearanceOf } from '../../../../src/lib/core/cascade/look.ts';
import { resolve } from '../../../../src/lib/core/cascade/resolve.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import { leavesSaying, lineSaying } from '../../../../src/lib/core/lift/said.ts';
import { FIELDS } from '../../../../src/lib/core/properties/index.ts';
import { settingsOf } from '../../../../src/lib/core/style/leaves.ts';
import { flatten } from '../../../../src/lib/core/style/inherit.ts';
import { emu } from '../../../../src/lib/core/units.ts';
import { anyStyle } from '../any.ts';
import { style, table } from '../../support.ts';

describe('what a look would be said by', () => {
	it('shows that look again, as the ground of a style', () => {
		fc.assert(
			fc.property(anyStyle, (one) => {
				const whole = table(['header:1', 'body', 'body', 'total'], 3);
				const { looks } = appearanceOf(resolve(whole, flatten(one), FIRST_HOUSE));
				for (const look of looks.filter(({ h }) => h !== 'decimal').slice(0, 5)) {
					const ground = settingsOf(leavesSaying(look, FIRST_HOUSE));
					const again = appearanceOf(resolve(whole, flatten(style({ ground })), FIRST_HOUSE));
					const shown = again.looks[again.cellLook[0]!]!;
					for (const { name, lift } of FIELDS) if (lift) assert.deepEqual(shown[name], look[name], name);
				}
			})
		);
	});
	it('of a line, with the name of its ink where the house has one', () => {
		const [name, ink] = Object.entries(FIRST_HOUSE.inks)[0]!;
		assert.deepEqual(lineSaying({ pattern: 'double', weight: emu(19_050), ink: ink as never }, FIRST_HOUSE), {
			pattern: 'double',
			weight: '1.5pt',
			ink: name
		});
		assert.deepEqual(lineSaying(null, FIRST_HOUSE), { pattern: 'none' });
	});
});
