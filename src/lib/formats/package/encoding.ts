import { InputError } from '../../core/errors.ts';

/** Encodings with one byte a character, whose text can be written back byte for byte. */
const SINGLE_BYTE = /^(windows-125\d|iso-8859-\d+|ibm866|koi8-[ru]|macintosh)$/;

/** Windows-1252 where it is not Latin 1 (Encoding Standard, index windows-1252); Node.js decodes these as Latin 1. */
const WINDOWS_1252 = '€\x81‚ƒ„…†‡ˆ‰Š‹Œ\x8dŽ\x8f\x90‘’“”•–—˜™š›œ\x9džŸ';

/** A text with the way back to the bytes that it came as. */
export interface EncodedText {
	readonly text: string;
	/** As the Encoding Standard names it. */
	readonly encoding: string;
	/** The bytes before the text that mark its encoding. */
	readonly mark: number;
	readonly bytes: Uint8Array;
}

function markOf(bytes: Uint8Array): [encoding: string, length: number] | undefined {
	if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return ['utf-8', 3];
	if (bytes[0] === 0xff && bytes[1] === 0xfe) return ['utf-16le', 2];
	if (bytes[0] === 0xfe && bytes[1] === 0xff) return ['utf-16be', 2];
	return undefined;
}

/** UTF-16 without a mark: every other byte of plain text is zero. */
function looksLikeUtf16(bytes: Uint8Array): string | undefined {
	const head = bytes.subarray(0, 400);
	if (head.length < 4) return undefined;
	let [even, odd] = [0, 0];
	head.forEach((byte, i) => {
		if (byte !== 0) return;
		if (i % 2) odd++;
		else even++;
	});
	if (odd > head.length * 0.3 && even < head.length * 0.05) return 'utf-16le';
	if (even > head.length * 0.3 && odd < head.length * 0.05) return 'utf-16be';
	return undefined;
}

/**
 * Text of bytes that say, or show, how they are encoded: by a byte order mark, as `declared`, as UTF-8 where they are
 * valid UTF-8, else as Windows-1252.
 */
export function decodeText(bytes: Uint8Array, declared?: string): EncodedText {
	const marked = markOf(bytes);
	const mark = marked?.[1] ?? 0;
	const body = bytes.subarray(mark);
	const decode = (label: string): EncodedText => {
		const decoder = new TextDecoder(label, { fatal: true, ignoreBOM: true });
		let text = decoder.decode(body);
		if (decoder.encoding === 'windows-1252')
			text = text.replace(/[\x80-\x9f]/g, (char) => WINDOWS_1252[char.charCodeAt(0) - 0x80]!);
		return { text, encoding: decoder.encoding, mark, bytes };
	};
	for (const label of [marked?.[0], declared, looksLikeUtf16(body), 'utf-8', 'windows-1252'])
		try {
			if (label) return decode(label);
		} catch {
			// Not valid in this encoding: the next one.
		}
	throw new InputError('encoding', 'The text of this file is in no encoding that is known here. Save it as UTF-8.');
}

/**
 * The bytes of a changed text: `pieces` are stretches of the original, by their offsets, and new text. In the encoding
 * of the original; `escape` says a character that it cannot hold in another way.
 */
export function encodePieces(
	original: EncodedText,
	pieces: Iterable<string | { readonly from: number; readonly to: number }>,
	escape: (char: string) => string
): Uint8Array<ArrayBuffer> {
	const { text, encoding, mark, bytes } = original;
	const out: Uint8Array[] = [bytes.subarray(0, mark)];
	const isSingle = SINGLE_BYTE.test(encoding);
	const utf8 = new TextEncoder();
	const utf16 = (piece: string) => {
		const view = new DataView(new ArrayBuffer(piece.length * 2));
		for (let i = 0; i < piece.length; i++) view.setUint16(i * 2, piece.charCodeAt(i), encoding === 'utf-16le');
		return new Uint8Array(view.buffer);
	};
	const fresh = (piece: string): Uint8Array => {
		if (encoding === 'utf-8') return utf8.encode(piece);
		if (encoding.startsWith('utf-16')) return utf16(piece);
		// eslint-disable-next-line no-control-regex
		return utf8.encode(piece.replace(/[^\u0000-\u007f]/gu, escape));
	};
	for (const piece of pieces) {
		if (typeof piece === 'string') out.push(fresh(piece));
		else if (isSingle) out.push(bytes.subarray(mark + piece.from, mark + piece.to));
		else if (encoding === 'utf-8' || encoding.startsWith('utf-16')) out.push(fresh(text.slice(piece.from, piece.to)));
		else
			throw new InputError(
				'encoding',
				`This file is encoded as ${encoding}, which can be read but not written. Save it as UTF-8 and add it again.`
			);
	}
	const whole = new Uint8Array(out.reduce((sum, { length }) => sum + length, 0));
	let at = 0;
	for (const part of out) {
		whole.set(part, at);
		at += part.length;
	}
	return whole;
}
