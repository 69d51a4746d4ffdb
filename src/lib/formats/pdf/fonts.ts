/* eslint-disable no-restricted-imports -- the fonts are files, and a PDF is written on the server or the command line */
import { existsSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { sfntOf } from './woff.ts';
import { Face, faceKey, type FaceName, type Faces } from '../../core/layout/faces.ts';

const require = createRequire(import.meta.url);

/** Scripts in the order in which their files are asked for a character. */
const SCRIPTS = ['latin', 'latin-ext', 'greek', 'greek-ext', 'cyrillic', 'cyrillic-ext', 'vietnamese'];
/** Families that lend characters that the asked one lacks. */
const LENDERS = ['source-sans-3', 'source-serif-4', 'ibm-plex-sans'];
/** Those of other scripts, which stand upright only: [font, script]. */
const OTHER_SCRIPTS = [
	['noto-sans-hebrew', 'hebrew'],
	['noto-sans-arabic', 'arabic']
] as const;

const packageOf = (family: string) => family.toLowerCase().replaceAll(' ', '-');

function filesIn(font: string, { weight, italic }: FaceName, scripts: readonly string[] = SCRIPTS): string[] {
	const folder = join(dirname(require.resolve(`@fontsource/${font}/package.json`)), 'files');
	return scripts
		.map((script) => join(folder, `${font}-${script}-${weight}-${italic ? 'italic' : 'normal'}.woff`))
		.filter((path) => existsSync(path));
}

/** The font files of a face, the family's own first. */
export function fontFiles(name: FaceName): Buffer[] {
	const own = packageOf(name.family);
	const lent = [own, ...LENDERS.filter((font) => font !== own)].flatMap((font) => filesIn(font, name));
	const others = OTHER_SCRIPTS.flatMap(([font, script]) => filesIn(font, { ...name, italic: false }, [script]));
	return [...lent, ...others].map((path) => sfntOf(readFileSync(path)));
}

const opened = new Map<string, Face>();

/** The faces that ship with the application, opened when they are first needed. */
export const shippedFaces: Faces = (name) => {
	const key = faceKey(name);
	let face = opened.get(key);
	if (!face) opened.set(key, (face = new Face(name, fontFiles(name))));
	return face;
};
