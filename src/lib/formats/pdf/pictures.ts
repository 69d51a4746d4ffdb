/* eslint-disable no-restricted-imports -- pictures are unpacked on the server or the command line */
import { inflateSync } from 'node:zlib';

/** No more pixels than that are drawn: about 8,000 by 6,000. */
const MOST_PIXELS = 50_000_000;
/** Samples of a pixel by the colour type of a PNG (PNG, third edition, §11.2.1). */
const SAMPLES: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };

/** The passes of an interlaced PNG: where each begins, and its steps across and down (PNG, third edition, §8.1). */
const ADAM7 = [
	[0, 0, 8, 8],
	[4, 0, 8, 8],
	[0, 4, 4, 8],
	[2, 0, 4, 4],
	[0, 2, 2, 4],
	[1, 0, 2, 2],
	[0, 1, 1, 2]
] as const;

/**
 * The bytes of a picture, by its `data:` address, that can be drawn; undefined for one that is damaged, or is neither PNG nor JPEG. The library that
 * draws finds damage in a PNG too late to say so: everything that it will unpack is unpacked here first.
 */
export function drawableBytes(address: string): Buffer | undefined {
	const bytes = Buffer.from(address.replace(/^data:[^,]*,/, ''), 'base64');
	try {
		return isSoundPng(bytes) || isSoundJpeg(bytes) ? bytes : undefined;
	} catch {
		return undefined;
	}
}

function isSoundPng(bytes: Buffer): boolean {
	if (bytes.toString('latin1', 0, 8) !== '\x89PNG\r\n\x1a\n') return false;
	const chunks = new Map<string, Buffer[]>();
	for (let at = 8; at < bytes.length;) {
		const length = bytes.readUInt32BE(at);
		const type = bytes.toString('latin1', at + 4, at + 8);
		if (at + 12 + length > bytes.length) return false;
		chunks.set(type, [...(chunks.get(type) ?? []), bytes.subarray(at + 8, at + 8 + length)]);
		at += 12 + length;
	}
	const [header] = chunks.get('IHDR') ?? [];
	if (header?.length !== 13 || !chunks.has('IEND')) return false;
	const [width, height] = [header.readUInt32BE(0), header.readUInt32BE(4)];
	const [depth, colour, , , interlaced] = header.subarray(8);
	const samples = SAMPLES[colour!];
	if (!samples || !width || !height || width * height > MOST_PIXELS) return false;
	if (colour === 3 && !chunks.has('PLTE')) return false;
	const passes = interlaced ? ADAM7 : [[0, 0, 1, 1] as const];
	const expected = passes.reduce((sum, [x, y, across, down]) => {
		const [columns, rows] = [Math.ceil((width - x) / across), Math.ceil((height - y) / down)];
		return columns > 0 && rows > 0 ? sum + (Math.ceil((columns * samples * depth!) / 8) + 1) * rows : sum;
	}, 0);
	const data = inflateSync(Buffer.concat(chunks.get('IDAT') ?? []), { maxOutputLength: expected });
	return data.length === expected;
}

/** A JPEG whose frame is found before its scan (ITU-T T.81, B.1.1). */
function isSoundJpeg(bytes: Buffer): boolean {
	if (bytes.readUInt16BE(0) !== 0xffd8) return false;
	for (let at = 2; at + 9 < bytes.length;) {
		const marker = bytes.readUInt16BE(at);
		const isFrame = marker >= 0xffc0 && marker <= 0xffcf && ![0xffc4, 0xffc8, 0xffcc].includes(marker);
		if (isFrame) return bytes.readUInt16BE(at + 5) * bytes.readUInt16BE(at + 7) > 0;
		if (marker < 0xff01) return false;
		at += 2 + bytes.readUInt16BE(at + 2);
	}
	return false;
}
