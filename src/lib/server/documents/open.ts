import { withBench } from '../../core/schedule/placed.ts';
import { openDocument, applyWorks, type AnyDocument } from '../../formats/index.ts';
import { withEdits } from '../../formats/svg/read.ts';
import type { DocumentState } from '../../workbench/state.ts';
import { fileBytes } from '../files/files.ts';
import { ofHouse } from '../people/acting.ts';
import { documentRow, stateAt, type Db } from './rows.ts';
import { worksIn } from './replay.ts';

/** Opened documents by house and content: reading a file again costs nothing while somebody works on it. */
const opened = new Map<string, AnyDocument>();
const OPENED_MAX = 8;

export function rememberOpened(what: string, document: AnyDocument): AnyDocument {
	const name = ofHouse(what);
	opened.delete(name);
	opened.set(name, document);
	if (opened.size > OPENED_MAX) opened.delete(opened.keys().next().value!);
	return document;
}
const openedBefore = (what: string): AnyDocument | undefined => opened.get(ofHouse(what));

/** The file that a document stands on: the one that came, or a newer one that took its place. */
export const fileAt = (found: { readonly file_hash: string }, { file, drawing }: DocumentState): string =>
	drawing?.file ?? file ?? found.file_hash;

/** A file that is kept, opened. */
export async function openFile(
	db: Db,
	{ file_hash: hash, kind }: { file_hash: string; kind: string }
): Promise<AnyDocument> {
	const known = openedBefore(`${kind} ${hash}`);
	return rememberOpened(
		`${kind} ${hash}`,
		known ?? (await openDocument(await fileBytes(db, hash), `document.${kind}`))
	);
}

/**
 * A document as it stands in a state: with its tables as they were worked on, and of a drawing with whatever else was
 * changed of it.
 */
export async function openAt(
	db: Db,
	found: { file_hash: string; kind: string },
	state: DocumentState
): Promise<AnyDocument> {
	const { drawing } = state;
	const file = fileAt(found, state);
	const document = await openFile(db, { ...found, file_hash: file });
	const works = await worksIn(db, state);
	const tables = new Map([...works].map(([index, { work }]) => [index, work]));
	if (document.kind === 'svg') {
		const placed = drawing?.placed?.map((one, index) => {
			const work = one.source.from === 'bench' && tables.get(index);
			return work ? withBench(one, work) : one;
		});
		return withEdits(document, placed ? { ...drawing, placed } : drawing);
	}
	if (works.size === 0 && !state.gone?.length) return document;
	const settle = () => applyWorks(document, tables, state.added, state.gone);
	const steps = [...works].map(([index, { step }]) => `${index}:${step}`).join();
	const key = `${found.kind} ${file} ${steps} ${JSON.stringify([state.added, state.gone])}`;
	return rememberOpened(key, openedBefore(key) ?? (await settle()));
}

/** As much text of a document's tables as is worth searching. */
const MOST_WORDS = 200_000;
export function wordsOf({ tables }: AnyDocument): string {
	let words = '';
	for (const { table, place } of tables) {
		words += ` ${place.caption ?? ''}`;
		for (const { text } of table.cells) {
			if (words.length > MOST_WORDS) return words.toLowerCase();
			words += ` ${text}`;
		}
	}
	return words.replace(/\0/g, '').toLowerCase();
}

/** A document with its file read and the state that it stands at. */
export async function openById(db: Db, id: string) {
	const found = await documentRow(db, id);
	const state = await stateAt(db, id, found.step);
	return { found, name: found.name, document: await openAt(db, found, state), state };
}
