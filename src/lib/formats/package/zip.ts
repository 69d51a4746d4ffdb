import {
	Uint8ArrayReader,
	Uint8ArrayWriter,
	ZipReader,
	ZipWriter,
	configure,
	type Entry,
	type FileEntry
} from '@zip.js/zip.js';
import { InputError } from '../../core/errors.ts';
import { checkLetters } from '../limits.ts';

// The library unpacks faster by itself than through the platform's streams; packing is the other way round.
configure({ useWebWorkers: false, useCompressionStream: false });

/** A package may unpack to this much in all, and one entry to this much; more is refused before and while unpacking. */
export const LIMITS = { unpacked: 400 * 2 ** 20, entry: 250 * 2 ** 20, entries: 20_000 } as const;

const tooLarge = (where: string) =>
	new InputError(
		'too-large',
		`This package unpacks to far more than a document needs (over ${LIMITS.entry / 2 ** 20} MB), which is how a zip bomb looks. It was not opened.`,
		where
	);

const utf8 = new TextDecoder('utf-8', { fatal: true });

/** What an entry is to hold: a text, or its pieces in order, or bytes. */
export type EntryText = string | Iterable<string> | Uint8Array;

const CHUNK = 262_144;

/** Stands first in an open document, readable: neither compressed nor with extra fields (ODF 1.3 Part 2 §3.3). */
const MIMETYPE = 'mimetype';

/** Bytes, or a text as UTF-8, encoded as it is read. */
function streamOf(text: EntryText): ReadableStream<Uint8Array> {
	if (text instanceof Uint8Array)
		return new ReadableStream({
			start(controller) {
				controller.enqueue(text);
				controller.close();
			}
		});
	const encoder = new TextEncoder();
	const pieces = typeof text === 'string' ? [text][Symbol.iterator]() : text[Symbol.iterator]();
	return new ReadableStream({
		pull(controller) {
			let chunk = '';
			while (chunk.length < CHUNK) {
				const next = pieces.next();
				if (next.done) {
					if (chunk) controller.enqueue(encoder.encode(chunk));
					controller.close();
					return;
				}
				chunk += next.value;
			}
			controller.enqueue(encoder.encode(chunk));
		}
	});
}

/** Whether a compound file has an entry of this name (MS-CFB §2.6.1: in UTF-16). */
function holds(bytes: Uint8Array, name: string): boolean {
	const wanted = [...name].flatMap((letter) => [letter.charCodeAt(0), 0]);
	for (let at = bytes.indexOf(wanted[0]!); at >= 0; at = bytes.indexOf(wanted[0]!, at + 1))
		if (wanted.every((byte, i) => bytes[at + i] === byte)) return true;
	return false;
}

/** An opened zip package. Entries are unpacked when asked for. */
export class Package {
	private constructor(
		private readonly entries: ReadonlyMap<string, FileEntry>,
		/** Entries in their order, those of folders among them. */
		private readonly order: readonly Entry[]
	) {}

	/** Throws InputError for bytes that are no complete, unencrypted zip package, or that unpack to too much. */
	static async open(bytes: Uint8Array<ArrayBuffer>, what: string): Promise<Package> {
		// A compound file (MS-CFB) is what an encrypted OOXML document is wrapped in.
		if (bytes[0] === 0xd0 && bytes[1] === 0xcf && bytes[2] === 0x11 && bytes[3] === 0xe0)
			throw holds(bytes, 'EncryptedPackage')
				? new InputError(
						'encrypted',
						`This file is protected by a password. Save it as ${what} without one and add it again.`
					)
				: new InputError(
						'older-format',
						`This file is in an older binary format. Open it in the program it came from, save it as ${what} and add it again.`
					);
		if (bytes[0] !== 0x50 || bytes[1] !== 0x4b)
			throw new InputError(
				'not-a-package',
				`This is not ${what}: the file does not begin like one. Was it renamed? Open it in the program it came from and save it as ${what}.`
			);
		let list;
		try {
			list = await new ZipReader(new Uint8ArrayReader(bytes)).getEntries();
		} catch {
			throw new InputError(
				'truncated',
				`This ${what} is incomplete: its list of contents at the end is missing or damaged. Get the whole file and add it again.`
			);
		}
		if (list.length > LIMITS.entries) throw tooLarge('the list of contents');
		const entries = new Map<string, FileEntry>();
		let unpacked = 0;
		for (const entry of list) {
			if (entry.directory) continue;
			if (entry.encrypted)
				throw new InputError(
					'encrypted',
					`“${entry.filename}” in this file is encrypted. Save it without a password and add it again.`,
					entry.filename
				);
			unpacked += entry.uncompressedSize;
			if (entry.uncompressedSize > LIMITS.entry || unpacked > LIMITS.unpacked) throw tooLarge(entry.filename);
			if (entries.has(entry.filename))
				throw new InputError('damaged', `This package holds “${entry.filename}” twice.`, entry.filename);
			entries.set(entry.filename, entry as FileEntry);
		}
		return new Package(entries, list);
	}

	/** A package with nothing in it yet, to be written with {@link rewrite}. */
	static empty(): Package {
		return new Package(new Map(), []);
	}

	has(name: string): boolean {
		return this.entries.has(name);
	}

	names(): string[] {
		return [...this.entries.keys()];
	}

	/** An entry unpacked, or undefined where there is none. Stops at the declared size, whatever the stream holds. */
	async bytes(name: string): Promise<Uint8Array<ArrayBuffer> | undefined> {
		const entry = this.entries.get(name);
		if (!entry) return undefined;
		const out = new Uint8Array(entry.uncompressedSize);
		let length = 0;
		const sink = new WritableStream<Uint8Array>({
			write(chunk) {
				if (length + chunk.length > out.length) throw tooLarge(name);
				out.set(chunk, length);
				length += chunk.length;
			}
		});
		try {
			await entry.getData(sink, { checkCrc32: true });
		} catch (error) {
			if (error instanceof InputError) throw error;
			throw new InputError('damaged', `“${name}” in this file is damaged and cannot be unpacked.`, name);
		}
		if (length !== out.length) throw new InputError('damaged', `“${name}” in this file is shorter than it says.`, name);
		return out;
	}

	/** An entry as text (UTF-8, or UTF-16 by its byte order mark); undefined where there is none. */
	async text(name: string): Promise<string | undefined> {
		checkLetters(this.entries.get(name)?.uncompressedSize ?? 0, name);
		const bytes = await this.bytes(name);
		if (!bytes) return undefined;
		try {
			if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
			if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
			return utf8.decode(bytes);
		} catch {
			throw new InputError('damaged', `“${name}” in this file is not valid UTF-8 text.`, name);
		}
	}

	/**
	 * The package with some entries replaced or added. All others are copied raw, byte for byte as they were
	 * compressed, in their old order; new ones come last.
	 */
	async rewrite(changed: ReadonlyMap<string, EntryText>): Promise<Uint8Array<ArrayBuffer>> {
		const writer = new ZipWriter(new Uint8ArrayWriter(), { useCompressionStream: true });
		const rest = new Map(changed);
		for (const entry of this.order) {
			const { filename: name } = entry;
			if (entry.directory) {
				await writer.add(name, undefined, { entry, directory: true });
				continue;
			}
			const text = rest.get(name);
			rest.delete(name);
			if (text === undefined) {
				const raw = await entry.getData(new Uint8ArrayWriter(), { passThrough: true }).catch(() => {
					throw new InputError('damaged', `“${name}” in this file is damaged and cannot be copied.`, name);
				});
				await writer.add(name, new Uint8ArrayReader(raw), {
					entry,
					passThrough: true,
					...(name === MIMETYPE && { extendedTimestamp: false })
				});
			} else
				await writer.add(name, streamOf(text), {
					lastModDate: entry.lastModDate,
					bufferedWrite: true,
					uncompressedSize: entry.uncompressedSize
				});
		}
		// A fixed date for what is new: the same input gives the same bytes.
		for (const [name, text] of rest)
			await writer.add(name, streamOf(text), {
				lastModDate: new Date(Date.UTC(2020, 0, 1)),
				bufferedWrite: true,
				uncompressedSize: 0,
				...(name === MIMETYPE && { level: 0, extendedTimestamp: false })
			});
		return writer.close();
	}
}
