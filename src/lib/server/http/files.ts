import { InputError } from '../../core/errors.ts';
import { givenName } from '../../formats/file-names.ts';
import { MAX_FILE_BYTES } from '../../formats/index.ts';
import { isTooLarge } from './requests.ts';

/** A response that the browser keeps as a file. */
export function download(body: BodyInit, called: string, type: string): Response {
	const name = givenName(called);
	const plain = name.replace(/[^\x20-\x7e]|["\\]/g, '_');
	return new Response(body, {
		headers: {
			'Content-Type': type,
			'Content-Disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`
		}
	});
}

/** A style's name as part of a file name. */
export const fileName = (name: string): string => name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase();

export const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

/** The bytes of an uploaded file. Throws InputError where it is larger than what is taken. */
export async function uploaded(request: Request, name: string): Promise<Uint8Array<ArrayBuffer>> {
	const tooLarge = () =>
		new InputError(
			'too-large',
			`“${name}” is larger than ${MAX_FILE_BYTES / 2 ** 20} MB, the most that is taken. It was not added.`,
			name
		);
	if (Number(request.headers.get('content-length') ?? 0) > MAX_FILE_BYTES) throw tooLarge();
	if (/^(application\/x-www-form-urlencoded|multipart\/|text\/plain)/i.test(request.headers.get('content-type') ?? ''))
		throw new InputError(
			'media-type',
			'This address takes a file as it is: its media type is application/octet-stream.'
		);
	const bytes = new Uint8Array(
		await request.arrayBuffer().catch((error: unknown) => {
			throw isTooLarge(error) ? tooLarge() : error;
		})
	);
	if (bytes.length > MAX_FILE_BYTES) throw tooLarge();
	return bytes;
}
