import type { Paragraph } from '../core/table/content.ts';
import { listed } from '../core/words.ts';
import type { DocumentTable } from './document.ts';
import type { Flow } from './flow.ts';
import { heldWords, hold, holdRow, type Held } from './held.ts';

/** What of tables and text comes along into a new file: links, lists, notes, pictures, facts of rows. */
export function broughtAlong(tables: readonly DocumentTable[], { blocks, order }: Flow): Held {
	const brought: Held = new Map();
	const paragraph = ({ runs, list }: Partial<Paragraph>) => {
		if (list) hold(brought, 'list');
		runs?.forEach(({ link, note }, i) => {
			if (note) hold(brought, 'note');
			if (link !== undefined && link !== runs[i - 1]?.link) hold(brought, 'link');
		});
	};
	for (const block of blocks)
		if (block.kind === 'picture') hold(brought, 'picture');
		else if (block.kind !== 'table') paragraph(block);
	for (const index of order) {
		const { content, rowFacts = [] } = tables[index]!;
		for (const piece of content.flat())
			if ('picture' in piece) hold(brought, 'picture');
			else if ('runs' in piece) paragraph(piece);
		for (const facts of rowFacts) holdRow(brought, facts);
	}
	return brought;
}

/** What does not come along into a new file, in a sentence; none where all does. */
export function leftBehind(held: Held, brought: Held): string[] {
	const left = [...held].flatMap(([kind, count]) => {
		const more = count - (brought.get(kind) ?? 0);
		return more > 0 ? [heldWords(kind, more)] : [];
	});
	return left.length ? [`These do not come along: ${listed(left)}.`] : [];
}
