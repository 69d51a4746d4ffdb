import { InputError } from '../core/errors.ts';
import { NAMED } from './format.ts';
import { FORMATS, type AnyDocument } from './formats.ts';
import { endingOf, OPENED, type DocumentKind } from './kinds.ts';
import { checkTables } from './limits.ts';
import { decodeText } from './package/encoding.ts';

/** The largest file that is taken in, in bytes; said before and after. */
export const MAX_FILE_BYTES = 50 * 2 ** 20;

const HEAD = 4_096;

/** What a file is, by its bytes; its name decides only between formats that look alike. */
export function kindOf(bytes: Uint8Array, name: string): DocumentKind {
	const start = bytes.subarray(0, HEAD);
	const latin1 = new TextDecoder('latin1').decode(start);
	const head = { bytes, latin1, text: decodeText(start).text, isPackage: latin1.startsWith('PK') };
	const ending = endingOf(name);
	const likely = OPENED.map(({ kind, endings }) => {
		const isNamed = endings.includes(ending);
		return { kind, likelihood: FORMATS[kind].sniff!(head, isNamed) + (isNamed ? NAMED : 0) };
	});
	return likely.reduce((best, one) => (one.likelihood > best.likelihood ? one : best)).kind;
}

/** Opens a document. Throws InputError saying what is wrong, where, and what to do. */
export async function openDocument(bytes: Uint8Array<ArrayBuffer>, name: string): Promise<AnyDocument> {
	if (bytes.length > MAX_FILE_BYTES)
		throw new InputError(
			'too-large',
			`“${name}” is ${Math.ceil(bytes.length / 2 ** 20)} MB; files up to ${MAX_FILE_BYTES / 2 ** 20} MB are taken.`,
			name
		);
	if (bytes.length === 0) throw new InputError('empty', `“${name}” is empty.`, name);
	const document = (await FORMATS[kindOf(bytes, name)].open!(bytes)) as AnyDocument;
	checkTables(document.tables);
	return document;
}
