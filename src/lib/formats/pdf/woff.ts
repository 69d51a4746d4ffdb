/* eslint-disable no-restricted-imports -- fonts are opened on the server or the command line */
import { inflateSync } from 'node:zlib';

const HEADER = 44;
const ENTRY = 20;
const align = (length: number) => (length + 3) & ~3;

/**
 * The font inside a WOFF file (WOFF 1.0, §§3–5) as plain TrueType or OpenType. fontkit reads the box of a glyph without an
 * outline, such as a space, from where its outline would be; at the end of a table that is unpacked alone there is nothing
 * to read, while here other bytes follow.
 */
export function sfntOf(woff: Buffer): Buffer {
	if (woff.toString('latin1', 0, 4) !== 'wOFF') return woff;
	const count = woff.readUInt16BE(12);
	const tables = Array.from({ length: count }, (_, i) => {
		const at = HEADER + i * ENTRY;
		const offset = woff.readUInt32BE(at + 4);
		const packed = woff.readUInt32BE(at + 8);
		const length = woff.readUInt32BE(at + 12);
		const data = woff.subarray(offset, offset + packed);
		return {
			tag: woff.subarray(at, at + 4),
			checksum: woff.readUInt32BE(at + 16),
			data: packed < length ? inflateSync(data) : data
		};
	});
	const directory = 12 + 16 * count;
	const end = 16;
	const font = Buffer.alloc(tables.reduce((size, { data }) => size + align(data.length), directory) + end);
	const power = 2 ** Math.floor(Math.log2(count));
	woff.copy(font, 0, 4, 8);
	font.writeUInt16BE(count, 4);
	font.writeUInt16BE(power * 16, 6);
	font.writeUInt16BE(Math.log2(power), 8);
	font.writeUInt16BE((count - power) * 16, 10);
	let offset = directory;
	tables.forEach(({ tag, checksum, data }, i) => {
		const at = 12 + 16 * i;
		tag.copy(font, at);
		font.writeUInt32BE(checksum, at + 4);
		font.writeUInt32BE(offset, at + 8);
		font.writeUInt32BE(data.length, at + 12);
		data.copy(font, offset);
		offset += align(data.length);
	});
	return font;
}
