import { Uint8ArrayReader, Uint8ArrayWriter, ZipWriter } from '@zip.js/zip.js';

/** A zip package of these entries. */
export async function zipOf(
	entries: Record<string, string | Uint8Array>,
	options: object = {}
): Promise<Uint8Array<ArrayBuffer>> {
	const writer = new ZipWriter(new Uint8ArrayWriter());
	for (const [name, value] of Object.entries(entries))
		await writer.add(
			name,
			new Uint8ArrayReader(typeof value === 'string' ? new TextEncoder().encode(value) : value),
			options
		);
	return writer.close();
}
