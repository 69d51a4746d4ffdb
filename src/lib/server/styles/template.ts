import { sql, type Kysely } from 'kysely';
import { toHex, type Hex } from '../../core/colour.ts';
import { InputError } from '../../core/errors.ts';
import { flatten } from '../../core/style/inherit.ts';
import { describeStyle } from '../../core/style/sentence.ts';
import { bareDocument } from '../../formats/found.ts';
import { makeDocx } from '../../formats/docx/make.ts';
import { readDocx } from '../../formats/docx/read.ts';
import { tableStylesOf } from '../../formats/docx/template.ts';
import { writeDocx } from '../../formats/docx/write.ts';
import { openDocument } from '../../formats/index.ts';
import { builtInSpecimen } from '../../workbench/specimen.ts';
import { NotFoundError } from '../http/answers.ts';
import type { Database } from '../database.ts';
import { frozenDraft } from './editions.ts';
import { loadHouse } from '../house/house.ts';
import { freeName, importStyle, insertStyle } from './styles.ts';

/**
 * Takes every table style of a DOCX template into the Stylebook, base chains kept; all or none. A style whose name is
 * taken gets another. Styles that Heptarch wrote into the file come back as they were defined.
 */
export async function importTemplate(
	db: Kysely<Database>,
	name: string,
	bytes: Uint8Array<ArrayBuffer>
): Promise<{ styles: { id: string; name: string; was: string }[] }> {
	const document = await openDocument(bytes, name);
	if (document.kind !== 'docx')
		throw new InputError('no-style', `“${name}” is no DOCX template, so there are no table styles to take in.`, name);
	const house = await loadHouse(db);
	const names = new Map<string, string>();
	for (const [ink, hex] of Object.entries(house.inks)) if (!names.has(toHex(hex)!)) names.set(toHex(hex)!, ink);
	const found = tableStylesOf(document, (hex: Hex) => names.get(hex) ?? hex);
	if (found.length === 0)
		throw new InputError(
			'no-style',
			`“${name}” holds no table style of its own, so there is nothing to take in.`,
			name
		);
	const carried = new Map(document.styles.map((style) => [style.name, style]));
	return db.transaction().execute(async (trx) => {
		const ids = new Map<string, string>();
		const styles: { id: string; name: string; was: string }[] = [];
		for (const style of found) {
			const own = carried.get(style.name);
			const known = await trx
				.selectFrom('styles')
				.select('id')
				.where(sql`lower(name)`, '=', style.name.toLowerCase())
				.executeTakeFirst();
			if (own && known) {
				ids.set(style.name, known.id);
				continue;
			}
			const fresh = await freeName(trx, style.name);
			const id = own
				? await importStyle(trx, own)
				: await insertStyle(trx, {
						...style,
						name: fresh,
						category: name.replace(/\.docx$/i, ''),
						basedOn: (style.basedOn && ids.get(style.basedOn)) ?? null
					});
			ids.set(style.name, id);
			styles.push({ id, name: own ? style.name : fresh, was: style.name });
		}
		return { styles };
	});
}

/** A DOCX in which authors find these styles to pick, each with a table that wears it. */
export async function writeTemplate(
	db: Kysely<Database>,
	ids: readonly string[]
): Promise<{ name: string; bytes: Uint8Array<ArrayBuffer> }> {
	const definitions = [];
	for (const id of ids) definitions.push(await frozenDraft(db, id));
	if (definitions.length === 0) throw new NotFoundError('Say which styles the template is to hold.');
	const { table } = builtInSpecimen();
	const document = await readDocx(
		await makeDocx(
			bareDocument(
				definitions.map((style) => ({
					heading: style.name,
					text: style.description ?? describeStyle(flatten(style)),
					grid: table
				}))
			)
		)
	);
	const house = await loadHouse(db);
	const { bytes } = await writeDocx(
		document,
		definitions.map((style, index) => ({
			index,
			table: { ...document.tables[index]!.table, ...rolesOf(table) },
			style
		})),
		{ house }
	);
	return {
		name: definitions.length === 1 ? `${definitions[0]!.name}, template` : `${house.name}, table styles`,
		bytes
	};
}

const rolesOf = ({ roles, columnInfo, firstColumns, lastColumns }: ReturnType<typeof builtInSpecimen>['table']) => ({
	roles,
	columnInfo,
	firstColumns,
	lastColumns
});
