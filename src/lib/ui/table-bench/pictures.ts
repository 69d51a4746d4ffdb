import DOMPurify from 'dompurify';
import { InputError } from '$lib/core/errors.ts';
import { emu, parseLength } from '$lib/core/units.ts';
import type { CellPicture } from '$lib/core/table/content.ts';

/** A picture is so large at most, in bytes. */
const MOST_BYTES = 5 * 2 ** 20;
/** A picture is put in no wider than this. */
const WIDEST = parseLength('60mm');

/** What would run when something happens: taken out before anything parses it, and again by DOMPurify. */
const HANDLERS = /\son[a-z]+\s*=\s*("[^"]*"|'[^']*')/gi;

const isPng = (bytes: Uint8Array) => bytes[0] === 0x89 && bytes[1] === 0x50 && bytes[2] === 0x4e && bytes[3] === 0x47;
const isJpeg = (bytes: Uint8Array) => bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff;

/** A file as a picture for a cell; its alternative text is still to be given. Throws InputError for what is none. */
export async function pictureFrom(file: File): Promise<CellPicture> {
	if (file.size > MOST_BYTES)
		throw new InputError(
			'too-large',
			`“${file.name}” is ${Math.ceil(file.size / 2 ** 20)} MB; pictures up to ${MOST_BYTES / 2 ** 20} MB are taken. Make it smaller first.`
		);
	const bytes = new Uint8Array(await file.arrayBuffer());
	const type = isPng(bytes) ? 'image/png' : isJpeg(bytes) ? 'image/jpeg' : 'image/svg+xml';
	let data = bytes;
	if (type === 'image/svg+xml') {
		const text = new TextDecoder().decode(bytes).replace(HANDLERS, '');
		const isSvg = new DOMParser().parseFromString(text, 'image/svg+xml').documentElement.localName === 'svg';
		if (!isSvg)
			throw new InputError(
				'not-a-picture',
				`“${file.name}” is no PNG, JPEG or SVG, whatever its name says. It was not put in.`
			);
		const clean = DOMPurify.sanitize(text, {
			USE_PROFILES: { svg: true, svgFilters: true },
			PARSER_MEDIA_TYPE: 'application/xhtml+xml'
		});
		data = new TextEncoder().encode(clean);
	}
	const source = `data:${type};base64,${base64(data)}`;
	const image = new Image();
	image.src = source;
	try {
		await image.decode();
	} catch {
		throw new InputError(
			'not-a-picture',
			`“${file.name}” cannot be shown: it is damaged, or no picture. It was not put in.`
		);
	}
	const [across, down] = [image.naturalWidth || 100, image.naturalHeight || 100];
	const scale = Math.min(1, WIDEST / (across * 9_525));
	const pixels = type === 'image/svg+xml' ? rasterised(image, across, down) : undefined;
	return {
		source,
		...(pixels && { pixels }),
		alternative: '',
		width: emu(across * 9_525 * scale),
		height: emu(down * 9_525 * scale),
		fits: 'row'
	};
}

/** A drawing as PNG, twice as fine as it is shown. */
function rasterised(image: HTMLImageElement, across: number, down: number): string {
	const canvas = document.createElement('canvas');
	const scale = Math.min(2, 2_000 / Math.max(across, down));
	canvas.width = Math.max(1, Math.round(across * scale));
	canvas.height = Math.max(1, Math.round(down * scale));
	canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
	return canvas.toDataURL('image/png');
}

function base64(bytes: Uint8Array): string {
	let text = '';
	for (let at = 0; at < bytes.length; at += 0x8000) text += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
	return btoa(text);
}
