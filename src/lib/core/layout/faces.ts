import { create, type Font } from 'fontkit';
import { standIn } from './fonts.ts';

/** One face of a family that ships. */
export interface FaceName {
	readonly family: string;
	readonly weight: number;
	readonly italic: boolean;
}

/** A run of characters that one font file has the glyphs of. */
export interface FontRun {
	readonly text: string;
	/** Which of the face's files, in the order of {@link FaceFiles}. */
	readonly file: number;
}

/** Weights that ship of every family, and those that ship of some. */
const WEIGHTS: Readonly<Record<string, readonly number[]>> = { 'Atkinson Hyperlegible': [400, 700] };
const USUAL_WEIGHTS = [400, 600, 700];

/** The face that shows where a family, weight and slope are asked for. */
export function faceName(family: string, weight: number, italic: boolean): FaceName {
	const shown = standIn(family);
	const nearest = (WEIGHTS[shown] ?? USUAL_WEIGHTS).reduce((best, one) =>
		Math.abs(one - weight) < Math.abs(best - weight) ? one : best
	);
	return { family: shown, weight: nearest, italic };
}

export const faceKey = ({ family, weight, italic }: FaceName): string =>
	`${family} ${weight}${italic ? ' italic' : ''}`;

/** Characters that may be made of others. */
const COMPOSED = /[^\0-\u02af]/u;

/** Advances are remembered up to so many different texts of a face. */
const MOST_REMEMBERED = 50_000;

/** Scripts whose letters are put together by rules of their font, which can be more than the library knows. */
const SHAPED = /[\u0300-\u036f\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]/;

/** Whether the library lays a text out: it stumbles over anchors that a font leaves empty. */
function isLaid(font: Font, text: string): boolean {
	if (!SHAPED.test(text)) return true;
	try {
		font.layout(text);
		return true;
	} catch {
		return false;
	}
}

/** A face with real metrics: several files, each with the glyphs of some scripts. Measures are shares of the type size. */
export class Face {
	readonly ascent: number;
	/** Below the baseline, positive. */
	readonly descent: number;
	/** Of capitals, above the baseline. */
	readonly capHeight: number;
	private readonly fonts: readonly Font[];
	private readonly advances = new Map<string, number>();
	/** Which file has a character; the first where none has it. */
	private readonly fileOf = new Map<number, number>();
	/** Characters that were asked for and that no file has. */
	readonly missing = new Set<string>();

	constructor(
		readonly name: FaceName,
		/** Font files, the one to prefer first (woff, woff2, TrueType or OpenType). */
		files: readonly Uint8Array[]
	) {
		this.fonts = files.map((bytes) => create(bytes as Buffer) as Font);
		const [first] = this.fonts;
		if (!first) throw new Error(`There is no font file of ${faceKey(name)}.`);
		this.ascent = first.ascent / first.unitsPerEm;
		this.descent = -first.descent / first.unitsPerEm;
		this.capHeight = first.capHeight / first.unitsPerEm;
	}

	/** Splits text by the files that have its characters. */
	runs(text: string): FontRun[] {
		const out: { text: string; file: number }[] = [];
		for (const character of text) {
			const file = this.file(character);
			const last = out.at(-1);
			if (last?.file === file) last.text += character;
			else out.push({ text: character, file });
		}
		// Letters that cannot be laid out together are laid out one by one.
		return out.flatMap((run) =>
			isLaid(this.fonts[run.file]!, run.text)
				? [run]
				: [...run.text].map((character) => ({ text: character, file: run.file }))
		);
	}

	/** Whether one of the files has a character. */
	has(character: string): boolean {
		const code = character.codePointAt(0)!;
		return this.fileOf.has(code)
			? !this.missing.has(character)
			: this.fonts.some((font) => font.hasGlyphForCodePoint(code) && isLaid(font, character));
	}

	/** A text with characters that no file has as those that they are made of (Unicode, NFKC): ﬁ as f and i. */
	shown(text: string): string {
		if (!COMPOSED.test(text)) return text;
		return text.replace(/[^\0-\x7f]/gu, (character) => {
			if (this.has(character)) return character;
			const plain = character.normalize('NFKC');
			return plain !== character && [...plain].every((one) => this.has(one)) ? plain : character;
		});
	}

	private file(character: string): number {
		const code = character.codePointAt(0)!;
		let file = this.fileOf.get(code);
		if (file === undefined) {
			file = this.fonts.findIndex((font) => font.hasGlyphForCodePoint(code) && isLaid(font, character));
			if (file < 0) {
				file = 0;
				if (/\S/.test(character)) this.missing.add(character);
			}
			this.fileOf.set(code, file);
		}
		return file;
	}

	/** The outlines of a text's glyphs for a size of 1: SVG path data with y upwards, and where each begins. */
	outlines(
		text: string
	): { readonly path: string; readonly scale: number; readonly x: number; readonly character: string }[] {
		const out: { path: string; scale: number; x: number; character: string }[] = [];
		let x = 0;
		for (const run of this.runs(text)) {
			const font = this.fonts[run.file]!;
			const { glyphs, positions } = font.layout(run.text);
			glyphs.forEach((glyph, i) => {
				const { xAdvance, xOffset } = positions[i]!;
				const character = String.fromCodePoint(...glyph.codePoints);
				out.push({ path: glyph.path.toSVG(), scale: 1 / font.unitsPerEm, x: x + xOffset / font.unitsPerEm, character });
				x += xAdvance / font.unitsPerEm;
			});
		}
		return out;
	}

	/** How far a text reaches, kerned, for a size of 1. */
	advance(text: string): number {
		let advance = this.advances.get(text);
		if (advance === undefined) {
			advance = this.runs(text).reduce((sum, run) => {
				const font = this.fonts[run.file]!;
				return sum + font.layout(run.text).advanceWidth / font.unitsPerEm;
			}, 0);
			if (this.advances.size >= MOST_REMEMBERED) this.advances.clear();
			this.advances.set(text, advance);
		}
		return advance;
	}
}

/** Gives faces by name; whoever lays out says where the font files are. */
export type Faces = (name: FaceName) => Face;
