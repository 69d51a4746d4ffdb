import assert from 'node:assert/strict';
import { it } from 'node:test';
import fc from 'fast-check';
import { givenName, takenName } from '../../../src/lib/formats/file-names.ts';

/** Any text, with what does harm in it more often than by chance. */
const harm = fc.constantFrom(
	'../',
	'..\\',
	'/',
	'\\',
	'\0',
	'\r\n',
	'\u202E',
	'\uD800',
	'\uDC00',
	'.',
	' ',
	'\u2028',
	'a'.repeat(9_000)
);
const texts = fc
	.array(fc.oneof(harm, fc.string({ unit: 'binary' }), fc.string()), { maxLength: 6 })
	.map((all) => all.join(''));
// eslint-disable-next-line no-control-regex
const HARM = /[\\/\u0000-\u001F\u007F\u202A-\u202E\u2066-\u2069\u2028\u2029]|\p{Cs}/u;

it('whatever a file is called, its name is a name: no path, nothing unseen, not too long', () => {
	fc.assert(
		fc.property(texts, (text) => {
			for (const name of [takenName(text, 'document.docx'), givenName(text)]) {
				assert.ok(name.length > 0 && [...name].length <= 120, name);
				assert.doesNotMatch(name, HARM);
				assert.doesNotMatch(name, /^\.|^\s|\s$/);
				assert.doesNotThrow(() => encodeURIComponent(name));
				assert.equal(takenName(name, 'x'), name);
				assert.equal(givenName(name), name);
			}
		}),
		{ numRuns: 500 }
	);
});

it('ordinary names stay as they are, and long ones keep their ending', () => {
	for (const name of ['Season report 2031.docx', 'Übersicht – Beete (2).odt', 'تقرير.html', 'a.b.c.csv', '👩‍🌾.svg'])
		assert.equal(takenName(name, 'x'), name);
	assert.equal(takenName('C:\\Users\\me\\Beds.docx', 'x'), 'Beds.docx');
	assert.equal(takenName('../../etc/x', 'x'), 'x');
	assert.equal(takenName('..', 'document.docx'), 'document.docx');
	assert.equal(takenName(null, 'document.docx'), 'document.docx');
	assert.match(takenName(`${'x'.repeat(9_000)}.docx`, 'x'), /^x{115}\.docx$/);
	assert.equal(givenName('Beds / north.docx'), 'Beds - north.docx');
});
