import { fromTwips } from '../../core/units.ts';
import { hold, holdRow, type Held, type RowFacts } from '../held.ts';
import { readOnOff } from './properties/text.ts';
import type { XmlNode } from '../package/xml.ts';
import type { Things } from '../../core/recognise/facts.ts';

const CONTROLS: ReadonlySet<string> = new Set(['w:dropDownList', 'w:comboBox', 'w:date', 'w:text', 'w:picture']);
const CHANGES: ReadonlySet<string> = new Set(['w:ins', 'w:del', 'w:moveFrom', 'w:moveTo']);

/** Boxes as Wingdings has them: an empty one, one with a shadow, a ticked one, a crossed one. */
const BOX_SIGNS = /^F0(A8|6F|FE|FD|78)$/i;

/** What cells hold beside text, for telling what their table is for. */
export function thingsIn(cells: readonly XmlNode[]): Things {
	let [pictures, boxes, fields, inner] = [0, 0, 0, 0];
	const visit = (node: XmlNode): void => {
		for (const child of node.children) {
			const { name } = child;
			if (name === 'mc:Fallback') continue;
			if (name === 'w:tbl') inner++;
			else if (name === 'w:drawing' || name === 'w:pict') pictures++;
			else if (name === 'w:sym' && BOX_SIGNS.test(child.attribute('w:char') ?? '')) boxes++;
			else if (name === 'w:checkBox' || (node.name === 'w:sdtPr' && /}checkbox$/.test(name))) boxes++;
			else if (name === 'w:textInput' || name === 'w:ddList') fields++;
			// A control that shows its prompt waits for somebody; one that is filled in is text like other text.
			else if (name === 'w:showingPlcHdr') fields++;
			else visit(child);
		}
	};
	for (const cell of cells) visit(cell);
	return { pictures, boxes, fields, inner };
}

/** What a row's properties say of it (§17.4.6, §17.4.20, §17.4.49, §17.4.80). */
export function rowFacts(trPr: XmlNode | undefined): RowFacts {
	const said = trPr?.child('w:trHeight');
	const height = fromTwips(Number(said?.attribute('w:val')) || 0);
	return {
		...(height > 0 && { height, isExact: said?.attribute('w:hRule') === 'exact' }),
		...(readOnOff(trPr?.child('w:cantSplit')) && { staysWhole: true }),
		...(readOnOff(trPr?.child('w:hidden')) && { isHidden: true }),
		...(readOnOff(trPr?.child('w:tblHeader')) && { isHeader: true })
	};
}

/** How many runs of a paragraph are marked: highlighted (§17.3.2.15), or shaded among others that are not. */
function marksIn(paragraph: XmlNode): number {
	const runs = paragraph.children.filter((child) => child.name === 'w:r' && child.child('w:t')?.text.trim());
	const behind = runs.map((run) => {
		const rPr = run.child('w:rPr');
		const highlight = rPr?.child('w:highlight')?.attribute('w:val') ?? 'none';
		return highlight === 'none' ? rPr?.child('w:shd')?.attribute('w:fill') : highlight;
	});
	const isMarked = runs.some((run) => run.at('w:rPr', 'w:highlight')) || new Set(behind).size > 1;
	return isMarked ? behind.filter((one) => one && one !== 'none' && one !== 'auto').length : 0;
}

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
		else if (name === 'w:p') {
			if (lists.has(child)) hold(held, 'list');
			hold(held, 'mark', marksIn(child));
		} else if (
			name === 'w:sdtPr' &&
			child.children.some((one) => CONTROLS.has(one.name) || /}checkbox$/.test(one.name))
		)
			hold(held, 'control');
		else if (name === 'w:tblPr') {
			if (child.child('w:tblW')?.attribute('w:type') === 'pct') hold(held, 'share');
			if (Number(child.child('w:tblInd')?.attribute('w:w'))) hold(held, 'indent');
			continue;
		} else if (name === 'w:trPr') {
			holdRow(held, rowFacts(child));
			if (child.child('w:del')) hold(held, 'deleted');
			continue;
		}
		if (!child.piece) countHeld(child, lists, held);
	}
}

const has = (node: XmlNode, name: string): boolean =>
	node.children.some((child) => child.name === name || (child.name !== 'mc:Fallback' && has(child, name)));
