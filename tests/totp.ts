import { createHmac } from 'node:crypto';

/** The code of a moment by RFC 6238, of a secret in base 32 (RFC 4648): what a person's own program shows. */
export function codeAt(secret: string, moment = Date.now()): string {
	const bits = [...secret.replace(/=+$/, '')]
		.map((letter) => 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(letter).toString(2).padStart(5, '0'))
		.join('');
	const key = Buffer.from((bits.match(/.{8}/g) ?? []).map((byte) => parseInt(byte, 2)));
	const counter = Buffer.alloc(8);
	counter.writeBigUInt64BE(BigInt(Math.floor(moment / 30_000)));
	const mac = createHmac('sha1', key).update(counter).digest();
	const number = mac.readUInt32BE(mac[19]! & 15) & 0x7fffffff;
	return String(number % 1_000_000).padStart(6, '0');
}
