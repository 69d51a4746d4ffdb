import { MAX_DEPTH, XmlNode, type Parsed, type Reading, type Scope } from './node.ts';

/** A start tag; the same object for the same text in the same scope. */
interface Tag {
	/** As written, and as the end tag has to be. */
	readonly raw: string;
	readonly closing: string;
	readonly name: string;
	readonly attributes: Readonly<Record<string, string>>;
	readonly length: number;
	readonly selfClosing: boolean;
	/** What holds inside. */
	readonly scope: Scope;
}

const SPACE = '[ \\t\\r\\n]';
const NAME = '[A-Za-z][\\w.-]*(?::[A-Za-z][\\w.-]*)?';
const TAG_NAME = new RegExp(`<(${NAME})`, 'y');
const ATTRIBUTE = new RegExp(`${SPACE}+(${NAME})${SPACE}*=${SPACE}*(?:"([^"<]*)"|'([^'<]*)')`, 'y');
const TAG_END = new RegExp(`${SPACE}*(/?)>`, 'y');
const BLANK = new RegExp(`^${SPACE}*$`);
const DECLARATION =
	/^<\?xml +version=(["'])1\.0\1(?: +encoding=(["'])[A-Za-z][\w.-]*\2)?(?: +standalone=(["'])(?:yes|no)\3)? *\?>/;
const INSTRUCTION = new RegExp(`<\\?(?!xml)${NAME}(?:${SPACE}[^?]*)?\\?>`, 'iy');
const ENTITIES: ReadonlyMap<string, string> = new Map([
	['amp', '&'],
	['lt', '<'],
	['gt', '>'],
	['quot', '"'],
	['apos', "'"]
]);
/** What XML 1.0 cannot hold (§2.2). */
// eslint-disable-next-line no-control-regex
const FORBIDDEN = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/;

/** Tags up to this long are remembered, and this many of them: most of a document's tags are few and short. */
const TAG_LENGTH = 80;
const TAGS = 4_000;
/** How often the end of a property element is looked for further on, because one of its own kind stands inside. */
const ENDS = 8;

const SLASH = 47;
const EXCLAMATION = 33;
const QUESTION = 63;

/**
 * Reads plain XML in one quick pass: elements, attributes, text, the five entities and character references, comments,
 * names of ASCII letters. Returns undefined for anything else and anything that is not well-formed; the strict parser is
 * to judge it. What this accepts, the strict parser accepts with the same result.
 */
export function scan(source: string, reading: Reading): Parsed | undefined {
	try {
		return new Scan(source, reading).run();
	} catch (error) {
		if (error === NOT_PLAIN) return undefined;
		throw error;
	}
}

const NOT_PLAIN = Symbol('not plain');
const giveUp = (): never => {
	throw NOT_PLAIN;
};

class Scan {
	private root: XmlNode | undefined;
	private rootScope: Scope;
	private scope: Scope;
	private readonly rootTags = new Map<string, Tag>();
	private tags = this.rootTags;
	/** The elements that are open, with their tags, and where in `pending` their children begin. */
	private readonly open: XmlNode[] = [];
	private readonly openTags: Tag[] = [];
	private readonly firsts: number[] = [];
	/** Children of the open elements, so far `count`. */
	private readonly pending: XmlNode[] = [];
	private count = 0;
	private readonly hasReferences: boolean;
	private readonly hasReturns: boolean;

	constructor(
		private readonly source: string,
		private readonly reading: Reading
	) {
		this.scope = this.rootScope = reading.scope;
		this.hasReferences = source.includes('&');
		this.hasReturns = source.includes('\r');
	}

	run(): Parsed {
		const { source, open } = this;
		if (FORBIDDEN.test(source) || !source.isWellFormed() || source.includes(']]>')) giveUp();
		let at = DECLARATION.exec(source)?.[0].length ?? 0;
		for (;;) {
			const next = source.indexOf('<', at);
			if (next !== at) this.text(at, next < 0 ? source.length : next);
			if (next < 0) break;
			const second = source.charCodeAt(next + 1);
			if (second === SLASH) at = this.endTag(next);
			else if (second === EXCLAMATION) at = this.comment(next);
			else if (second === QUESTION) at = this.instruction(next);
			else at = this.startTag(next);
		}
		if (open.length > 0 || !this.root) return giveUp();
		return { root: this.root, scope: this.rootScope };
	}

	private text(from: number, to: number): void {
		const text = this.source.slice(from, to);
		const { open } = this;
		if (open.length === 0) {
			if (!BLANK.test(text)) giveUp();
			return;
		}
		const node = open[open.length - 1]!;
		const plain = this.resolved(this.hasReturns ? text.replace(/\r\n?/g, '\n') : text);
		node.text = node.text === '' ? plain : node.text + plain;
	}

	/** With entities and character references resolved. */
	private resolved(text: string): string {
		if (!this.hasReferences || !text.includes('&')) return text;
		return text.replace(/&(?:#(\d+|x[\dA-Fa-f]+);|(\w+);|)/g, (_, number?: string, name?: string) => {
			if (name !== undefined) return ENTITIES.get(name) ?? giveUp();
			if (number === undefined) return giveUp();
			const code = number[0] === 'x' ? parseInt(number.slice(1), 16) : parseInt(number, 10);
			if (!(code <= 0x10ffff) || (code >= 0xd800 && code <= 0xdfff)) return giveUp();
			const character = String.fromCodePoint(code);
			return FORBIDDEN.test(character) ? giveUp() : character;
		});
	}

	private startTag(start: number): number {
		const tag = this.tagAt(start);
		const { open, reading } = this;
		const openEnd = start + tag.length;
		if (open.length >= MAX_DEPTH) giveUp();
		if (open.length === 0) {
			if (this.root) giveUp();
			this.rootScope = tag.scope;
		}
		// Bindings made below the root would be lost to a piece that is read by itself: such property elements are read here.
		const isProperty = !tag.selfClosing && tag.scope === this.rootScope && reading.properties.has(tag.name);
		const piece = isProperty ? this.pieceAt(start, openEnd, tag) : undefined;
		const node = new XmlNode(tag.name, tag.attributes, start, piece);
		this.root ??= node;
		this.pending[this.count++] = node;
		node.openEnd = openEnd;
		if (tag.selfClosing) node.closeStart = node.end = openEnd;
		else if (piece) {
			node.end = start + piece.end;
			node.closeStart = start + piece.closeStart;
		} else {
			open.push(node);
			this.openTags.push(tag);
			this.firsts.push(this.count);
			this.enter(tag.scope);
		}
		return node.end || openEnd;
	}

	private enter(scope: Scope): void {
		if (scope === this.scope) return;
		this.scope = scope;
		this.tags = scope === this.rootScope ? this.rootTags : new Map<string, Tag>();
	}

	private endTag(start: number): number {
		const { source, open } = this;
		const node = open.pop() ?? giveUp();
		const { closing, raw } = this.openTags.pop()!;
		let end = start + closing.length;
		if (!source.startsWith(closing, start)) {
			end = source.indexOf('>', start) + 1;
			if (end === 0 || !source.startsWith(raw, start + 2) || !BLANK.test(source.slice(start + 2 + raw.length, end - 1)))
				giveUp();
		}
		const first = this.firsts.pop()!;
		if (this.count > first) node.children = this.pending.slice(first, this.count);
		this.count = first;
		node.closeStart = start;
		node.end = end;
		this.enter(this.openTags.at(-1)?.scope ?? this.reading.scope);
		return end;
	}

	private comment(start: number): number {
		const { source } = this;
		if (!source.startsWith('<!--', start)) giveUp();
		const end = source.indexOf('--', start + 4);
		return end >= 0 && source[end + 2] === '>' ? end + 3 : giveUp();
	}

	private instruction(start: number): number {
		INSTRUCTION.lastIndex = start;
		return INSTRUCTION.test(this.source) ? INSTRUCTION.lastIndex : giveUp();
	}

	private tagAt(start: number): Tag {
		const { source, tags } = this;
		const end = source.indexOf('>', start) + 1;
		if (end === 0) giveUp();
		if (end - start > TAG_LENGTH) return this.readTag(start);
		const text = source.slice(start, end);
		const known = tags.get(text);
		if (known) return known;
		const tag = this.readTag(start);
		if (tag.length === text.length && tag.scope === this.scope && tags.size < TAGS) tags.set(text, tag);
		return tag;
	}

	private readTag(start: number): Tag {
		const { source } = this;
		TAG_NAME.lastIndex = start;
		const raw = TAG_NAME.exec(source)?.[1] ?? giveUp();
		const attributes: Record<string, string> = {};
		ATTRIBUTE.lastIndex = TAG_NAME.lastIndex;
		let at = TAG_NAME.lastIndex;
		for (let found; (found = ATTRIBUTE.exec(source)); at = ATTRIBUTE.lastIndex) {
			const [, name, double, single] = found;
			if (Object.hasOwn(attributes, name!)) giveUp();
			attributes[name!] = this.resolved((double ?? single!).replace(/\r\n|[\r\n\t]/g, ' '));
		}
		TAG_END.lastIndex = at;
		const end = TAG_END.exec(source) ?? giveUp();
		const scope = this.scope.inside(attributes);
		return {
			raw,
			closing: `</${raw}>`,
			name: scope.element(raw),
			attributes: scope.named(attributes),
			length: TAG_END.lastIndex - start,
			selfClosing: end[1] === '/',
			scope
		};
	}

	/** A property element, up to the first end tag that closes it. */
	private pieceAt(start: number, openEnd: number, { closing }: Tag): XmlNode {
		const { source, reading, rootScope } = this;
		let close = openEnd;
		for (let tries = 0; tries < ENDS; tries++) {
			close = source.indexOf(closing, close) + closing.length;
			if (close < closing.length) break;
			const piece = reading.piece(source.slice(start, close), rootScope);
			if (piece) return piece;
		}
		return giveUp();
	}
}
