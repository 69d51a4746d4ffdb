import { hold, type Held } from '../held.ts';
import type { XmlNode } from '../package/xml.ts';

const CONTROLS: ReadonlySet<string> = new Set(['w:dropDownList', 'w:comboBox', 'w:date', 'w:text', 'w:picture']);
const CHANGES: ReadonlySet<string> = new Set(['w:ins', 'w:del', 'w:moveFrom', 'w:moveTo']);

/** Counts what an element of a document holds beside text and tables; `lists` are its paragraphs that are items of lists. */
export function countHeld(node: XmlNode, lists: ReadonlyMap<XmlNode, unknown>, held: Held): void {
	for (const child of node.children) {
		const { name } = child;
		if (name === 'mc:Fallback') continue;
		if (name === 'w:drawing') {
			hold(held, has(child, 'w:txbxContent') ? 'box' : has(child, 'a:blip') ? 'picture' : 'drawing');
			continue;
		}
		if (name === 'w:pict') hold(held, has(child, 'w:txbxContent') ? 'box' : 'picture');
		else if (name === 'w:object') hold(held, 'object');
		else if (name === 'w:hyperlink') hold(held, 'link');
		else if (name === 'w:instrText') hold(held, /^\s*HYPERLINK/i.test(child.text) ? 'link' : 'field');
		else if (name === 'w:fldSimple') hold(held, 'field');
		else if (name === 'w:footnoteReference' || name === 'w:endnoteReference') hold(held, 'note');
		else if (name === 'w:commentReference') hold(held, 'comment');
		else if (CHANGES.has(name)) hold(held, 'change');
		else if (name.endsWith('/math}oMath')) hold(held, 'equation');
		else if (name === 'w:p' && lists.has(child)) hold(held, 'list');
		else if (name === 'w:sdtPr' && child.children.some((one) => CONTROLS.has(one.name) || /}checkbox$/.test(one.name)))
			hold(held, 'control');
		else if (name === 'w:tblPr') {
			if (child.child('w:tblW')?.attribute('w:type') === 'pct') hold(held, 'share');
			if (Number(child.child('w:tblInd')?.attribute('w:w'))) hold(held, 'indent');
			continue;
		} else if (name === 'w:trPr') {
			if (child.child('w:trHeight')) hold(held, 'height');
			if (child.child('w:cantSplit')) hold(held, 'together');
			if (child.child('w:hidden')) hold(held, 'hidden');
			if (child.child('w:del')) hold(held, 'deleted');
			continue;
		}
		if (!child.piece) countHeld(child, lists, held);
	}
}

const has = (node: XmlNode, name: string): boolean =>
	node.children.some((child) => child.name === name || (child.name !== 'mc:Fallback' && has(child, name)));
