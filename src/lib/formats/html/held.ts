import { hold, type Held, type HeldKind } from '../held.ts';
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
	math: 'equation'
};

/** Counts what an element of a page holds beside text and tables; `isListed` tells items that show what they are. */
export function countHeld(node: Element, held: Held, isListed: (item: Element) => boolean): void {
	for (const child of node.children) {
		if (!isTag(child)) continue;
		const kind = KINDS[child.name];
		if (child.name === 'li' ? isListed(child) : kind) hold(held, kind!);
		if (isNoteText(child)) continue;
		if (isNoteMark(child)) hold(held, 'note');
		else if (child.name === 'a' && child.attribs.href !== undefined) hold(held, 'link');
		if (child.name === 'table') {
			const said = `;${child.attribs.style ?? ''}`;
			if (/%$/.test(child.attribs.width ?? '') || /;\s*width\s*:[^;]*%/i.test(said)) hold(held, 'share');
			if (/;\s*margin(-left|-inline-start)\s*:\s*(?!auto|0(?![.\d]))/i.test(said)) hold(held, 'indent');
		}
		if (child.name === 'tr' && (child.attribs.height ?? /(^|;)\s*height\s*:/i.exec(child.attribs.style ?? '')))
			hold(held, 'height');
		if (kind === undefined || kind === 'list') countHeld(child, held, isListed);
	}
}
