import { parseJson } from '../../core/well-formed.ts';
import { type Kysely } from 'kysely';
import { toHex, type Hex } from '../../core/colour.ts';
import { InputError } from '../../core/errors.ts';
import { inkOf, typeRoleOf, type House } from '../../core/house.ts';
import { same } from '../../core/merge.ts';
import { canonicalStyle } from '../../core/style/canonical.ts';
import { mapInks, mapTypeRoles } from '../../core/style/edit.ts';
import { selfContained } from '../../core/style/export.ts';
import { baseChain } from '../../core/style/inherit.ts';
import type { Style } from '../../core/style/types.ts';
import { checkStyle } from '../../core/style/validate.ts';
import { tableStylesOf } from '../../formats/docx/template.ts';
import { openDocument } from '../../formats/index.ts';
import type { ClashChoice } from '../../workbench/stylebook.ts';
import type { Database } from '../database.ts';
import { loadHouse } from '../house/house.ts';
import { addStyleStep } from './steps.ts';
import { findIn, freeName, insertStyle, listStyles, putStyleAside } from './styles.ts';

/** A style that arrives under a name that the house has for another one. Both say all that they need themselves. */
export interface StyleClash {
	readonly name: string;
	readonly ours: Style;
	readonly theirs: Style;
}

export interface Arrived {
	/** What was taken in; where it was given another name, `was` is its own. */
	readonly styles: readonly { readonly id: string; readonly name: string; readonly was: string }[];
	/** What has to be decided first: nothing is stored while there is any. */
	readonly clashes: readonly StyleClash[];
}

/**
 * Takes every style of a file into the Stylebook (a style file, or a DOCX with table styles), bases first; all or none.
 * Styles that the house has already, whatever they are called in detail, are left as they are. Throws InputError for what
 * is neither.
 */
export async function takeStylesIn(
	db: Kysely<Database>,
	file: string,
	bytes: Uint8Array<ArrayBuffer>,
	choices: Readonly<Record<string, ClashChoice>> = {}
): Promise<Arrived> {
	const house = await loadHouse(db);
	const arriving = await stylesOf(file, bytes, house);
	return db.transaction().execute(async (trx) => {
		const styles = await listStyles(trx);
		const find = findIn(styles);
		const nameOf = (id: string | null | undefined) => (id ? (find(id)?.name ?? null) : null);
		const known = new Map(styles.map((style) => [style.definition.name.toLowerCase(), style]));
		const plans = arriving.map((style) => {
			const there = known.get(style.name.toLowerCase());
			if (!there) return { style, there, does: 'add' as const };
			const { definition } = there;
			const isSame = same(
				contentOf(style, house),
				contentOf({ ...definition, basedOn: nameOf(definition.basedOn) }, house)
			);
			return { style, there, does: isSame ? ('ours' as const) : choiceIn(choices, style.name) };
		});
		const byName = new Map(arriving.map((style) => [style.name, style]));
		const clashes = plans.flatMap(({ style, there, does }): StyleClash[] =>
			there && !does
				? [
						{
							name: there.definition.name,
							ours: selfContained(there.definition, house, find),
							theirs: selfContained(
								style,
								house,
								(name) => byName.get(name) ?? known.get(name.toLowerCase())?.definition
							)
						}
					]
				: []
		);
		if (clashes.length) return { styles: [], clashes };
		const ids = new Map<string, string>();
		const taken: Arrived['styles'][number][] = [];
		for (const { style, there, does } of plans) {
			const basedOn = (style.basedOn && (ids.get(style.basedOn) ?? known.get(style.basedOn.toLowerCase())?.id)) || null;
			if (there && does !== 'both') {
				ids.set(style.name, there.id);
				if (there.aside) await putStyleAside(trx, there.id, false);
				if (does !== 'instead') continue;
				const name = there.definition.name;
				await addStyleStep(trx, there.id, `taken in from “${file}”`, { ...style, name, basedOn });
				taken.push({ id: there.id, name, was: style.name });
				continue;
			}
			const name = await freeName(trx, style.name);
			const id = await insertStyle(trx, { ...style, name, basedOn });
			ids.set(style.name, id);
			taken.push({ id, name, was: style.name });
		}
		return { styles: taken, clashes: [] };
	});
}

const choiceIn = (choices: Readonly<Record<string, ClashChoice>>, name: string): ClashChoice | undefined =>
	Object.hasOwn(choices, name) ? choices[name] : undefined;

/** The styles of a file, each after what it builds on, with bases by their names. */
async function stylesOf(file: string, bytes: Uint8Array<ArrayBuffer>, house: House): Promise<Style[]> {
	if (!/^\s*[{[]/.test(new TextDecoder().decode(bytes.subarray(0, 64)))) return templateStyles(file, bytes, house);
	let value: unknown;
	try {
		value = parseJson(new TextDecoder().decode(bytes));
	} catch (error) {
		if (error instanceof InputError) throw error;
		throw new InputError('style', `“${file}” is not whole: ${(error as Error).message}.`, file);
	}
	try {
		return layersOf(checkStyle(value));
	} catch (error) {
		if (!(error instanceof InputError)) throw error;
		throw new InputError(error.code, `“${file}”: ${error.message}`, error.where ?? file);
	}
}

const layersOf = (style: Style): Style[] =>
	[style, ...baseChain(style)].reverse().map(({ bases: _, ...own }): Style => own);

async function templateStyles(file: string, bytes: Uint8Array<ArrayBuffer>, { inks }: House): Promise<Style[]> {
	const document = await openDocument(bytes, file);
	if (document.kind !== 'docx')
		throw new InputError(
			'no-style',
			`“${file}” is neither a style file nor a word-processing template, so there are no table styles to take in.`,
			file
		);
	const names = new Map<string, string>();
	for (const [ink, hex] of Object.entries(inks)) if (!names.has(toHex(hex)!)) names.set(toHex(hex)!, ink);
	const found = tableStylesOf(document, (hex: Hex) => names.get(hex) ?? hex);
	if (found.length === 0)
		throw new InputError(
			'no-style',
			`“${file}” holds no table style of its own, so there is nothing to take in.`,
			file
		);
	/** Styles that Heptarch wrote into the file come back as they were defined. */
	const carried = new Map(document.styles.map((style) => [style.name, style]));
	const category = file.replace(/\.docx$/i, '');
	const arriving = new Map<string, Style>();
	for (const style of found) {
		const own = carried.get(style.name);
		for (const layer of own ? layersOf(own) : [{ ...style, category }])
			if (!arriving.has(layer.name)) arriving.set(layer.name, layer);
	}
	return [...arriving.values()];
}

/** What a style says itself, whatever its inks and type roles are called, and whatever is said about it. */
function contentOf(style: Style, house: House): unknown {
	const own: House = {
		...house,
		inks: { ...house.inks, ...style.inks },
		typeRoles: { ...house.typeRoles, ...style.typeRoles }
	};
	const {
		inks: _i,
		typeRoles: _t,
		name: _n,
		description: _d,
		category: _c,
		basedOn,
		...says
	} = canonicalStyle(
		mapTypeRoles(
			mapInks(style, (ink) => toHex(inkOf(own, ink) ?? ink) ?? ink),
			(role) => JSON.stringify(typeRoleOf(own, role) ?? role)
		)
	);
	return { ...says, basedOn: basedOn?.toLowerCase() ?? null };
}
