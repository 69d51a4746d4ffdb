import type { Look } from '../cascade/look.ts';
import { DEFAULT_FAMILY, DEFAULT_SIZE, DEFAULT_WEIGHT, LEADING } from '../properties/defaults.ts';
import type { RunView } from '../table/content.ts';
import { faceName, type Faces } from './faces.ts';
import type { TextPiece } from './paragraph.ts';

/** Raised and lowered text, and small capitals, as shares of the size. */
const SCRIPT_SIZE = 0.7;
const RISE = { super: 0.33, sub: -0.14 };
const SMALL_CAPITALS = 0.8;

export const sizeOf = (look: Look): number => look.size ?? DEFAULT_SIZE;
export const lineHeightOf = (look: Look): number => sizeOf(look) * LEADING * (look.lineHeight ?? 1);

const CASED: Partial<Record<NonNullable<Look['case']>, (text: string) => string>> = {
	upper: (text) => text.toUpperCase(),
	lower: (text) => text.toLowerCase(),
	title: (text) =>
		text.replace(
			/(^|[^\p{L}\p{M}\p{N}’'])(\p{Ll})/gu,
			(_, before: string, letter: string) => before + letter.toUpperCase()
		)
};

/** Letters that were typed as one ligature, as the letters that they are (Unicode, Alphabetic Presentation Forms). */
const withoutLigatures = (text: string): string => text.replace(/[\uFB00-\uFB06]/g, (one) => one.normalize('NFKC'));

/** The pieces of a paragraph of a cell: its look, with each run's emphasis over it. */
export function piecesOf(runs: readonly RunView[], look: Look, faces: Faces): TextPiece[] {
	return runs.flatMap((run): TextPiece[] => {
		if (!run.text) return [];
		const full = sizeOf(look);
		const size = run.position ? full * SCRIPT_SIZE : full;
		const common = {
			face: faces(
				faceName(
					look.family ?? DEFAULT_FAMILY,
					run.weight ?? look.weight ?? DEFAULT_WEIGHT,
					run.italic ?? look.italic ?? false
				)
			),
			tracking: look.tracking ?? 0,
			rise: run.position ? RISE[run.position] * full : 0,
			ink: run.ink ?? look.ink ?? '#000000',
			underline: run.underline ?? look.underline ?? 'none',
			...(run.link !== undefined && { link: run.link })
		} as const;
		if (look.case === 'small-caps')
			return common.face
				.shown(withoutLigatures(run.text))
				.split(/(\p{Ll}+)/u)
				.filter((part) => part)
				.map((part) =>
					/\p{Ll}/u.test(part)
						? { ...common, text: part.toUpperCase(), typed: part, size: size * SMALL_CAPITALS }
						: { ...common, text: part, size }
				);
		const typed = withoutLigatures(run.text);
		const shown = common.face.shown(typed);
		const text = CASED[look.case ?? 'none']?.(shown) ?? shown;
		return [{ ...common, text, ...(text !== typed && { typed }), size }];
	});
}
