import { SaxesParser } from 'saxes';
import { InputError } from '../../core/errors.ts';
import { MAX_DEPTH, XmlNode, type Parsed, type Reading } from './node.ts';

/** Parses all XML, and says of what is none where it fails: throws InputError naming the part, line and column. */
export function parseStrictly(source: string, part: string, reading: Reading, allowDoctype: boolean): Parsed {
	const parser = new SaxesParser({ xmlns: false, position: true });
	let root: XmlNode | undefined;
	let { scope } = reading;
	let rootScope = scope;
	const open: { node: XmlNode; children: XmlNode[]; outer: typeof scope }[] = [];

	const fail = (message: string): never => {
		throw new InputError(
			'xml',
			`“${part}” is not well-formed: ${message} (line ${parser.line}, column ${parser.column}).`,
			`${part}:${parser.line}`
		);
	};
	parser.on('error', (error) => fail(error.message.replace(/^\d+:\d+: /, '')));
	parser.on('doctype', (doctype) => {
		if (!allowDoctype) fail('a document type declaration is not allowed here');
		if (doctype.includes('[')) fail('it declares entities or a document type of its own, which is not allowed here');
	});
	parser.on('opentag', (tag) => {
		if (open.length >= MAX_DEPTH) fail(`elements stand more than ${MAX_DEPTH} deep in each other`);
		const outer = scope;
		scope = scope.inside(tag.attributes);
		if (!root) rootScope = scope;
		const start = source.lastIndexOf('<', parser.position - 1);
		const node = new XmlNode(scope.element(tag.name), scope.named(tag.attributes), start);
		node.openEnd = parser.position;
		root ??= node;
		open.push({ node, children: [], outer });
	});
	parser.on('closetag', (tag) => {
		const { node, children, outer } = open.pop()!;
		node.end = parser.position;
		node.closeStart = tag.isSelfClosing ? node.end : source.lastIndexOf('<', parser.position - 1);
		if (tag.isSelfClosing) node.openEnd = node.end;
		else if (children.length > 0) node.children = children;
		const isProperty = !tag.isSelfClosing && scope === rootScope && reading.properties.has(node.name);
		open.at(-1)?.children.push(isProperty ? propertyOf(node) : node);
		scope = outer;
	});
	/** A property element that was read here, as one that is read by itself. */
	const propertyOf = (node: XmlNode): XmlNode => {
		const piece = reading.piece(source.slice(node.start, node.end), rootScope);
		if (!piece) return node;
		const { name, attributes, start, openEnd, closeStart, end } = node;
		return Object.assign(new XmlNode(name, attributes, start, piece), { openEnd, closeStart, end });
	};
	const take = (text: string) => {
		const inner = open.at(-1);
		if (inner) inner.node.text += text;
	};
	parser.on('text', take);
	parser.on('cdata', take);
	parser.write(source).close();
	return { root: root ?? fail('it is empty'), scope: rootScope };
}
