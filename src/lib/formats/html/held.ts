import { hold, type Held, type HeldKind } from '../held.ts';
import { isTag, type Element } from './dom.ts';

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

/** Counts what an element of a page holds beside text and tables. */
export function countHeld(node: Element, held: Held): void {
	for (const child of node.children) {
		if (!isTag(child)) continue;
		const kind = KINDS[child.name];
		if (kind) hold(held, kind);
		if (child.name === 'a' && child.attribs.href !== undefined) hold(held, 'link');
		if (child.name === 'tr' && (child.attribs.height ?? /(^|;)\s*height\s*:/i.exec(child.attribs.style ?? '')))
			hold(held, 'height');
		if (kind === undefined || kind === 'list') countHeld(child, held);
	}
}
