/** A response that the browser keeps as a file. */
export function download(body: BodyInit, name: string, type: string): Response {
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
