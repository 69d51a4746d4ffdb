import { InputError } from '../core/errors.ts';
import { readDocx, type DocxDocument } from './docx/read.ts';

/** The largest file that is taken in, in bytes; said before and after. */
export const MAX_FILE_BYTES = 50 * 2 ** 20;

/** Opens a document by what its bytes are; `name` is only for the message. */
export async function openDocument(bytes: Uint8Array<ArrayBuffer>, name: string): Promise<DocxDocument> {
	if (bytes.length > MAX_FILE_BYTES)
		throw new InputError(
			'too-large',
			`“${name}” is ${Math.ceil(bytes.length / 2 ** 20)} MB; files up to ${MAX_FILE_BYTES / 2 ** 20} MB are taken.`,
			name
		);
	if (bytes.length === 0) throw new InputError('empty', `“${name}” is empty.`, name);
	return readDocx(bytes);
}
