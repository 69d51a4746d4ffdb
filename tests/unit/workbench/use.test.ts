import assert from 'node:assert/strict';
import { it } from 'node:test';
import fc from 'fast-check';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { OPENED } from '../../../src/lib/formats/kinds.ts';
import { Stylebook, type BookStyle } from '../../../src/lib/workbench/stylebook.ts';
import { useWords, type StyleUse } from '../../../src/lib/workbench/use.ts';

const kind = fc.constantFrom(...OPENED.map((one) => one.kind));
const document = fc.constantFrom('a', 'b', 'c');
const use: fc.Arbitrary<StyleUse | null> = fc.oneof(
	fc.constant(null),
	fc.record({ kinds: fc.uniqueArray(kind, { minLength: 1 }) }),
	fc.record({ document })
);
const house = { ...FIRST_HOUSE, locale: 'en-GB' };

it('a style is offered where it is meant for, nowhere else, and always to what wears it', () => {
	fc.assert(
		fc.property(fc.array(use, { maxLength: 6 }), document, kind, fc.nat(5), (uses, id, kind, worn) => {
			const styles = uses.map((use, i): BookStyle => ({
				id: `s${i}`,
				definition: { format: 'heptarch-style', version: 1, name: `s${i}`, parts: {} },
				use
			}));
			const chosen = styles[worn]?.id;
			const offered = new Set(new Stylebook(styles, house, {}, { id, kind }).offered(chosen).map((one) => one.id));
			for (const { id: style, use } of styles) {
				const isMeant = !use || ('kinds' in use ? use.kinds.includes(kind) : use.document === id);
				assert.equal(offered.has(style), isMeant || style === chosen);
			}
			// In the Stylebook itself all are there.
			assert.equal(new Stylebook(styles, house).offered().length, styles.length);
		})
	);
});

it('says in words where that is', () => {
	assert.equal(
		useWords(null, () => undefined),
		'anywhere'
	);
	assert.match(
		useWords({ kinds: ['docx', 'odt'] }, () => undefined),
		/^only in these kinds: .+, .+$/
	);
	assert.equal(
		useWords({ document: 'a' }, () => 'Season report'),
		'only in “Season report”'
	);
	assert.equal(
		useWords({ document: 'a' }, () => undefined),
		'only in one document'
	);
});
