import type { Things } from '../../core/recognise/facts.ts';
import { emu } from '../../core/units.ts';
import { hold, holdRow, type Held, type HeldKind, type RowFacts } from '../held.ts';
import type { PageStyles } from './cascade.ts';
import { toPx } from './css.ts';
import { listItemOf } from './lists.ts';
import { isNoteText, isTag, type Element } from './dom.ts';
import { isNoteMark } from './notes.ts';

const KINDS: Readonly<Record<string, HeldKind>> = {
	img: 'picture',
	picture: 'picture',
	svg: 'drawing',
	canvas: 'drawing',
	li: 'list',
	input: 'control',
	select: 'control',
	textarea: 'control',
	button: 'control',
	iframe: 'object',
	video: 'object',
	audio: 'object',
	object: 'object',
	embed: 'object',
	math: 'equation',
	mark: 'mark'
};

/** What a row says of itself. */
export function rowFacts(row: Element, styles: PageStyles): RowFacts {
	const computed = styles.computed(row);
	const said = computed.get('height') ?? row.attribs.height;
	const pixels = said === undefined ? undefined : toPx(/^\d+(\.\d+)?$/.test(said) ? `${said}px` : said, 16, 0);
	return {
		...(pixels && pixels > 0 && { height: emu(Math.round(pixels * 9_525)) }),
		...(/^avoid/.test(computed.get('break-inside') ?? '') && { staysWhole: true }),
		...(('hidden' in row.attribs || computed.get('display') === 'none') && { isHidden: true })
	};
}

/** What a cell holds beside text, for telling what its table is for. */
export function thingsIn(cell: Element | undefined): Things {
	let [pictures, boxes, fields, inner] = [0, 0, 0, 0];
	const visit = (node: Element): void => {
		for (const child of node.children) {
			if (!isTag(child)) continue;
			const { name } = child;
			if (name === 'table') inner++;
			else if (name === 'input' && /^(checkbox|radio)$/i.test(child.attribs.type ?? '')) boxes++;
			else if (name === 'input' || name === 'select' || name === 'textarea') fields++;
			else if (KINDS[name] === 'picture' || KINDS[name] === 'drawing') pictures++;
			else visit(child);
		}
	};
	if (cell) visit(cell);
	return { pictures, boxes, fields, inner };
}

/** Counts what an element of a page holds beside text and tables. */
export function countHeld(node: Element, held: Held, styles: PageStyles): void {
	for (const child of node.children) {
		if (!isTag(child)) continue;
		const kind = KINDS[child.name];
		if (child.name === 'li' ? listItemOf(child, styles) : kind) hold(held, kind!);
		if (isNoteText(child)) continue;
		if (isNoteMark(child)) hold(held, 'note');
		else if (child.name === 'a' && child.attribs.href !== undefined) hold(held, 'link');
		if (child.name === 'table') {
			const said = `;${child.attribs.style ?? ''}`;
			if (/%$/.test(child.attribs.width ?? '') || /;\s*width\s*:[^;]*%/i.test(said)) hold(held, 'share');
			if (/;\s*margin(-left|-inline-start)\s*:\s*(?!auto|0(?![.\d]))/i.test(said)) hold(held, 'indent');
		}
		if (child.name === 'tr') holdRow(held, rowFacts(child, styles));
		if (kind === undefined || kind === 'list' || kind === 'mark') countHeld(child, held, styles);
	}
}
