import { escapeXml } from '../../../../src/lib/core/escape.ts';
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Uint8ArrayReader, Uint8ArrayWriter, ZipReader, type FileEntry } from '@zip.js/zip.js';
import fc from 'fast-check';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { Edits, parseXml, type XmlNode } from '../../../../src/lib/formats/package/xml.ts';
import { Package } from '../../../../src/lib/formats/package/zip.ts';
import { zipOf } from '../zip.ts';
import { runs } from '../../runs.ts';

const NAMES = new Map([
	['urn:one', 'o'],
	['urn:two', 't']
]);
const parse = (source: string, properties?: Set<string>) =>
	parseXml(source, 'part.xml', { namespaces: NAMES, ...(properties && { properties }) });

describe('XML', () => {
	it('knows where every element stands', () => {
		const source = `<o:a xmlns:o="urn:one" x="&lt;1">\r\n  <o:b/><o:c>té &amp; x</o:c>\n</o:a>`;
		const { root } = parse(source);
		assert.equal(source.slice(root.start, root.end), source);
		const [b, c] = root.children;
		assert.equal(source.slice(b!.start, b!.end), '<o:b/>');
		assert.ok(b!.selfClosing);
		assert.equal(source.slice(c!.start, c!.end), '<o:c>té &amp; x</o:c>');
		assert.equal(source.slice(c!.openEnd, c!.closeStart), 'té &amp; x');
		assert.equal(c!.text, 'té & x');
		assert.equal(root.attribute('x'), '<1');
	});
	it('goes by namespaces, whatever the prefixes', () => {
		const { root, prefixes } = parse(
			'<a xmlns="urn:one" xmlns:q="urn:two" q:k="v"><q:b xmlns="urn:three"><c/></q:b></a>'
		);
		assert.equal(root.name, 'o:a');
		assert.equal(root.attribute('t:k'), 'v');
		assert.equal(root.at('t:b')!.children[0]!.name, '{urn:three}c');
		assert.equal(prefixes.get('t'), 'q');
	});
	it('reads property elements once for the same markup, to the same result', () => {
		const source =
			'<o:a xmlns:o="urn:one"><o:p k="1"><o:q><o:r>x</o:r></o:q></o:p><o:p k="1"><o:q><o:r>x</o:r></o:q></o:p></o:a>';
		const shared = parse(source, new Set(['o:p'])).root;
		const eager = parse(source).root;
		assert.equal(shared.children[1]!.at('o:q', 'o:r')!.text, eager.children[1]!.at('o:q', 'o:r')!.text);
		assert.equal(shared.children[1]!.start, eager.children[1]!.start);
		assert.equal(shared.children[0]!.children, shared.children[1]!.children, 'the same markup is read once');
	});
	it('refuses document types, deep nesting and broken markup, saying where', () => {
		const fails = (source: string, pattern: RegExp) =>
			assert.throws(
				() => parse(source),
				(error) => error instanceof InputError && pattern.test(error.message)
			);
		fails('<!DOCTYPE a [<!ENTITY x "y">]><a>&x;</a>', /document type declaration/);
		fails('<a>'.repeat(2000) + '</a>'.repeat(2000), /deep/);
		fails('<a><b></a>', /line 1/);
		fails('', /part\.xml/);
		fails('<a>&nope;</a>', /part\.xml/);
		fails('plain text', /part\.xml/);
	});
	it('reads a property element that is the root like any other', () => {
		const { root } = parse('<o:p xmlns:o="urn:one"><o:q>x</o:q></o:p>', new Set(['o:p']));
		assert.equal(root.name, 'o:p');
		assert.equal(root.at('o:q')!.text, 'x');
	});
	for (const [what, source] of [
		['two roots', '<a/><b/>'],
		['text outside', '<a/>x'],
		['a bare ampersand', '<a>a & b</a>'],
		['a reference to what cannot be', '<a>&#0;</a>'],
		['a sign that cannot be', '<a>\u0001</a>'],
		['an attribute twice', '<a b="1" b="2"/>'],
		['< in a value', '<a b="<"/>'],
		['an open tag', '<a><b>'],
		['crossed tags in a property element', '<a><p><b></p></b></a>'],
		['too many end tags', '<a/></a>'],
		['a comment with --', '<a><!-- a -- b --></a>'],
		['a declaration that is not first', ' <?xml version="1.0"?><a/>']
	] as const)
		it(`refuses ${what}, saying in which part and line`, () =>
			assert.throws(
				() => parse(source, new Set(['p'])),
				(error) => error instanceof InputError && error.where === 'part.xml:1' && error.code === 'xml'
			));
	it('reads to the same tree whether property elements are read by themselves or not, or refuses both', () => {
		const piece = fc.constantFrom(
			...[
				'<o:p>',
				'</o:p>',
				'<o:q>',
				'</o:q>',
				'<o:q/>',
				'<b x="1">',
				'</b>',
				'<o:p xmlns:z="urn:z">',
				'<!-- </o:p> -->'
			],
			...['text', '&amp;', '<![CDATA[</o:p>]]>', '<o:p/>', ' ', '\r\n', '<z:c xmlns:z="urn:two"/>', '<?go on?>', '🌿']
		);
		const tree = (node: XmlNode, offset = 0): unknown => ({
			name: node.name,
			attributes: node.attributes,
			places: [node.start, node.openEnd, node.closeStart, node.end].map((place) => place + offset),
			children: node.children.map((child) => tree(child, offset + (node.piece ? node.start : 0)))
		});
		const treeOf = (source: string, properties?: Set<string>) => {
			try {
				return tree(parse(source, properties).root);
			} catch (error) {
				assert.ok(error instanceof InputError, String(error));
				return undefined;
			}
		};
		let read = 0;
		fc.assert(
			fc.property(fc.array(piece, { maxLength: 14 }), (pieces) => {
				const source = `<o:a xmlns:o="urn:one">${pieces.join('')}</o:a>`;
				const plain = treeOf(source);
				if (plain) read++;
				assert.deepEqual(treeOf(source, new Set(['o:p', 'o:q'])), plain);
			}),
			{ numRuns: runs(1_000) }
		);
		assert.ok(read > 100, `only ${read} were well-formed`);
	});
	it('edits only what is edited', () => {
		fc.assert(
			fc.property(
				fc.string({ minLength: 1 }),
				fc.array(fc.tuple(fc.nat(), fc.nat(3), fc.string({ maxLength: 4 })), { maxLength: 5 }),
				(source, wanted) => {
					const edits = new Edits();
					let at = 0;
					let expected = '';
					for (const [start, length, text] of wanted
						.map(([s, l, t]) => [s % (source.length + 1), l, t] as const)
						.sort((a, b) => a[0] - b[0])) {
						if (start < at) continue;
						const end = Math.min(source.length, start + length);
						edits.replace(start, end, text);
						expected += source.slice(at, start) + text;
						at = end;
						if (end === start) at = start;
					}
					assert.equal(edits.apply(source), expected + source.slice(at));
				}
			)
		);
	});
	it('edits in whatever order they come, and a part of a source by itself', () => {
		const edits = new Edits();
		edits.replace(4, 5, 'E');
		edits.insert(1, '<');
		edits.replace(1, 2, '');
		edits.insert(4, '|');
		assert.equal(edits.apply('abcdef'), 'a<cd|Ef');
		assert.equal([...edits.pieces('abcdef', 1, 5)].join(''), '<cd|E');
		edits.replace(0, 2, 'x');
		assert.throws(() => edits.apply('abcdef'), /overlap/);
	});
	it('edits long texts in pieces', () => {
		const source = 'abcdefghij'.repeat(20_000);
		const edits = new Edits();
		for (let at = 0; at < source.length; at += 10) edits.replace(at, at + 1, '[a]');
		const pieces = [...edits.pieces(source, 0, source.length)];
		assert.ok(pieces.length > 2 && pieces.every((piece) => piece.length < 70_000));
		assert.equal(pieces.join(''), source.replaceAll('a', '[a]'));
	});
	it('escapes what XML cannot hold', () => assert.equal(escapeXml('<"&\u0001>'), '&lt;&quot;&amp;&gt;'));
});

describe('packages', () => {
	const raw = async (bytes: Uint8Array) => {
		const entries = (await new ZipReader(new Uint8ArrayReader(bytes)).getEntries()).filter(
			(entry) => !entry.directory
		) as FileEntry[];
		return Promise.all(
			entries.map(async (entry) => ({
				name: entry.filename,
				method: entry.compressionMethod,
				date: entry.rawLastModDate,
				bytes: await entry.getData(new Uint8ArrayWriter(), { passThrough: true })
			}))
		);
	};
	it('are rewritten with everything else as it was compressed', async () => {
		const bytes = await zipOf({
			'a.xml': '<a/>'.repeat(100),
			'b.bin': new Uint8Array(2000).map((_, i) => i * 7),
			'c.xml': '<c/>'
		});
		const again = await (
			await Package.open(bytes, 'a package')
		).rewrite(
			new Map([
				['c.xml', '<d/>'],
				['new.xml', '<n/>']
			])
		);
		const [before, after] = [await raw(bytes), await raw(again)];
		assert.deepEqual(after.slice(0, 2), before.slice(0, 2));
		assert.deepEqual(
			after.map(({ name }) => name),
			['a.xml', 'b.bin', 'c.xml', 'new.xml']
		);
		assert.equal(await (await Package.open(again, 'a package')).text('c.xml'), '<d/>');
	});
	it('give the same bytes for the same input', async () => {
		const bytes = await zipOf({ 'a.xml': '<a/>' }, { lastModDate: new Date(2030, 1, 1) });
		const write = async () =>
			(await Package.open(bytes, 'a package')).rewrite(
				new Map([
					['a.xml', '<b/>'],
					['new.xml', '<n/>']
				])
			);
		assert.deepEqual(await write(), await write());
	});
	it('are refused with a reason', async () => {
		const refuses = async (bytes: Uint8Array<ArrayBuffer>, code: string) =>
			assert.rejects(
				Package.open(bytes, 'a DOCX document'),
				(error) => error instanceof InputError && error.code === code && error.message.length > 20
			);
		const good = await zipOf({ 'a.xml': '<a/>'.repeat(500) });
		await refuses(new TextEncoder().encode('Dear reader, this was renamed.'), 'not-a-package');
		const compound = (name: string) => {
			const letters = [...name].flatMap((letter) => [letter.charCodeAt(0), 0]);
			return new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, ...letters]);
		};
		await refuses(compound('EncryptedPackage'), 'encrypted');
		await refuses(compound('WordDocument'), 'older-format');
		await refuses(good.slice(0, good.length - 60), 'truncated');
		await refuses(await zipOf({ 'a.xml': '<a/>' }, { password: 'x' }), 'encrypted');
		await refuses(await zipOf({ 'bomb.xml': new Uint8Array(260 * 2 ** 20) }), 'too-large');
	});
	it('stop at the size an entry says it has', async () => {
		const bytes = await zipOf({ 'a.xml': 'x'.repeat(5000) });
		// The declared size, in the local and the central header, set to 10.
		const view = new DataView(bytes.buffer);
		for (let i = 0; i + 4 <= bytes.length; i++) if (view.getUint32(i, true) === 5000) view.setUint32(i, 10, true);
		const archive = await Package.open(bytes, 'a package');
		await assert.rejects(archive.bytes('a.xml'), InputError);
	});
});
