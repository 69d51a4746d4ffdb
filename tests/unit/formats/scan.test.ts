import assert from 'node:assert/strict';
import { before, describe, it } from 'node:test';
import fc from 'fast-check';
import { seasonReport } from '../../../demo/documents/season-report.ts';
import { InputError } from '../../../src/lib/core/errors.ts';
import { NAMESPACES } from '../../../src/lib/formats/docx/names.ts';
import { Scope, type Parsed, type Reading, type XmlNode } from '../../../src/lib/formats/package/node.ts';
import { scan } from '../../../src/lib/formats/package/scan.ts';
import { parseStrictly } from '../../../src/lib/formats/package/strict.ts';
import { Package } from '../../../src/lib/formats/package/zip.ts';

const NAMES = new Map([...NAMESPACES, ['urn:one', 'o'], ['urn:two', 't']]);

/** A reading that reads each property element by itself, with the parser that is tried. */
function reading(properties: ReadonlySet<string>): Reading {
	const inPiece = (scope: Scope): Reading => ({ scope, properties: new Set(), piece: () => undefined });
	return {
		scope: new Scope(new Map(), NAMES),
		properties,
		piece: (markup, scope) => scan(markup, inPiece(scope))?.root
	};
}

const plain = (node: XmlNode): unknown => ({
	name: node.name,
	attributes: { ...node.attributes },
	text: node.text,
	places: [node.start, node.openEnd, node.closeStart, node.end],
	isProperty: node.piece !== undefined,
	children: node.children.map(plain)
});

function strictly(source: string, properties: ReadonlySet<string>): Parsed | undefined {
	try {
		return parseStrictly(source, 'part', reading(properties), false);
	} catch (error) {
		assert.ok(error instanceof InputError, String(error));
		return undefined;
	}
}

/** What the quick reader accepts, the strict one accepts with the same tree. Returns whether it accepted. */
function agree(source: string, properties: ReadonlySet<string> = new Set()): boolean {
	const quick = scan(source, reading(properties));
	if (!quick) return false;
	const strict = strictly(source, properties);
	assert.ok(strict, `accepted although it is not well-formed: ${JSON.stringify(source)}`);
	assert.deepEqual(plain(quick.root), plain(strict.root));
	assert.deepEqual(quick.scope.bindings, strict.scope.bindings);
	return true;
}

const PROPERTIES = new Set(['o:p', 'o:q', 'w:tblPr', 'w:tblPrEx', 'w:trPr', 'w:tcPr', 'w:pPr', 'w:rPr']);

describe('the quick reader of plain XML', () => {
	let main: string;
	before(async () => {
		main = (await (await Package.open(await seasonReport(), 'a DOCX document')).text('word/document.xml'))!;
	});

	it('reads a whole document as the strict parser does', () => assert.ok(agree(main, PROPERTIES)));

	const wrap = (inner: string) => `<o:a xmlns:o="urn:one" xmlns="urn:two">${inner}</o:a>`;
	for (const [what, source] of [
		['references', wrap('a &amp; &lt;&#x41;&#66; <b c="&quot;&#9;d\te"/>')],
		['returns', wrap('\r\n<b x="a\r\nb">\r</b>')],
		['comments and instructions', `<?xml version="1.0"?><!-- - --><?go on?>${wrap('<!----><?x?>')} <!-- end -->`],
		['signs beyond the first plane', wrap('🌿')],
		['bindings inside', wrap('<c:b xmlns:c="urn:two" c:x="1"/><b xmlns="urn:one"><b/></b>')],
		['a property inside one of its kind', wrap('<o:p><o:was><o:p><b/></o:p></o:was></o:p>')],
		['a property that ends in a comment', wrap('<o:p><!-- </o:p> --></o:p>')],
		['a property with its own bindings', wrap('<o:p xmlns:z="urn:z"><z:b/></o:p>')],
		['spaces in end tags', wrap('<b></b ><b><b/></b\n>')],
		['a > in a value', wrap('<b x="a>b">c</b>')]
	] as const)
		it(`reads ${what}`, () => assert.ok(agree(source, PROPERTIES)));

	for (const [what, source] of [
		['a document type', '<!DOCTYPE a><a/>'],
		['CDATA', '<a><![CDATA[x]]></a>'],
		['two roots', '<a/><b/>'],
		['text outside', '<a/>x'],
		['an unknown entity', '<a>&nbsp;</a>'],
		['a bare ampersand', '<a>a & b</a>'],
		['a reference to what cannot be', '<a>&#0;&#xD800;&#x110000;</a>'],
		['a sign that cannot be', '<a>\u0001</a>'],
		['half a sign', '<a>\ud83c</a>'],
		[']]> in text', '<a>]]></a>'],
		['an attribute twice', '<a b="1" b="2"/>'],
		['no space before an attribute', '<a b="1"c="2"/>'],
		['< in a value', '<a b="<"/>'],
		['crossed tags', '<a><b></a></b>'],
		['an open tag', '<a><b>'],
		['too many end tags', '<a/></a>'],
		['a comment with --', '<a><!-- a -- b --></a>'],
		['a declaration that is not first', ' <?xml version="1.0"?><a/>'],
		['letters beyond ASCII in names', '<é/>'],
		['deep nesting', '<a>'.repeat(601) + '</a>'.repeat(601)],
		['nothing', '']
	] as const)
		it(`leaves ${what} to the strict parser`, () => assert.equal(scan(source, reading(PROPERTIES)), undefined));

	const anyPiece = fc.constantFrom(
		...[
			'<',
			'>',
			'/',
			'"',
			"'",
			'=',
			' ',
			'\n',
			'\r',
			'&',
			';',
			'&amp;',
			'&#65;',
			'&lt',
			'-',
			'--',
			'<!--',
			'-->',
			'?>'
		],
		...[
			'<?',
			'<?xml',
			']]>',
			'<o:p>',
			'</o:p>',
			'<o:q/>',
			'</b>',
			'<b>',
			'<b ',
			'xmlns:o="urn:one"',
			'x="1"',
			'o',
			':'
		],
		...['\u0000', '\ud800', '🌿', 'é', '<o:q><o:q>', '</o:q>', '<![CDATA[', '<!DOCTYPE b>', 'xmlns=""', 'b']
	);
	it('never accepts what is not well-formed, and reads the rest alike', () => {
		let accepted = 0;
		fc.assert(
			fc.property(fc.array(anyPiece, { maxLength: 12 }), (pieces) => {
				if (agree(wrap(pieces.join('')), PROPERTIES)) accepted++;
			}),
			{ numRuns: 4_000 }
		);
		assert.ok(accepted > 100, `only ${accepted} were accepted`);
	});

	it('nor in a document that was damaged somewhere', () => {
		const start = main.slice(0, main.indexOf('<w:body>'));
		const row = /<w:tr[ >].*?<\/w:tr>/s.exec(main)![0];
		const whole = `${start}${row}</w:document>`;
		let accepted = 0;
		fc.assert(
			fc.property(fc.nat(row.length), fc.nat(6), anyPiece, (place, length, piece) => {
				const at = start.length + place;
				if (agree(whole.slice(0, at) + piece + whole.slice(at + length), PROPERTIES)) accepted++;
			}),
			{ numRuns: 2_000 }
		);
		assert.ok(accepted > 100, `only ${accepted} were accepted`);
	});
});
