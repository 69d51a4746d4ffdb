import { type Kysely } from 'kysely';
import { flatten } from '../../core/style/inherit.ts';
import { describeStyle } from '../../core/style/sentence.ts';
import { bareDocument } from '../../formats/found.ts';
import { makeDocx } from '../../formats/docx/make.ts';
import { readDocx } from '../../formats/docx/read.ts';
import { writeDocx } from '../../formats/docx/write.ts';
import { builtInSpecimen } from '../../workbench/specimen.ts';
import { NotFoundError } from '../http/answers.ts';
import type { Database } from '../database.ts';
import { frozenDraft } from './editions.ts';
import { loadHouse } from '../house/house.ts';

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
