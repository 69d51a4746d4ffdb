/** A picture's bytes as a `data:` address. */
export function pictureAddress(bytes: Uint8Array, type: 'png' | 'jpeg'): string {
	let text = '';
	for (let at = 0; at < bytes.length; at += 32_768) text += String.fromCharCode(...bytes.subarray(at, at + 32_768));
	return `data:image/${type};base64,${btoa(text)}`;
}

/** What a picture's bytes are: PNG or JPEG, and so many pixels; undefined for others. */
export function pictureOf(
	bytes: Uint8Array
): { readonly type: 'png' | 'jpeg'; readonly width: number; readonly height: number } | undefined {
	const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
	if (bytes.length > 33 && view.getUint32(0) === 0x89504e47 && view.getUint32(12) === 0x49484452)
		return { type: 'png', width: view.getUint32(16), height: view.getUint32(20) };
	if (bytes.length < 4 || view.getUint16(0) !== 0xffd8) return undefined;
	// The frame of a JPEG stands before its scan (ITU-T T.81, B.1.1).
	for (let at = 2; at + 9 < bytes.length;) {
		const marker = view.getUint16(at);
		const isFrame = marker >= 0xffc0 && marker <= 0xffcf && ![0xffc4, 0xffc8, 0xffcc].includes(marker);
		if (isFrame) return { type: 'jpeg', height: view.getUint16(at + 5), width: view.getUint16(at + 7) };
		if (marker < 0xff01) return undefined;
		at += 2 + view.getUint16(at + 2);
	}
	return undefined;
}

/** The same of a `data:` address. */
export function pictureSize(address: string): ReturnType<typeof pictureOf> {
	const data = /^data:image\/(?:png|jpe?g);base64,([A-Za-z\d+/=\s]+)$/i.exec(address)?.[1];
	if (data === undefined) return undefined;
	try {
		return pictureOf(Uint8Array.from(atob(data), (letter) => letter.charCodeAt(0)));
	} catch {
		return undefined;
	}
}
