import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { elements, parsePage } from '../../../../src/lib/formats/html/dom.ts';
import { PageStyles } from '../../../../src/lib/formats/html/cascade.ts';

describe('what style sheets of a page may cost', () => {
	const page = (css: string, siblings: number) => {
		const document = parsePage(`<style>${css}</style>${'<p>bed</p>'.repeat(siblings)}`);
		const styles = new PageStyles(document);
		const last = [...elements(document)].filter(({ name }) => name === 'p').at(-1)!;
		return { colour: styles.computed(last).get('color'), styles };
	};
	const chain = (length: number) => `b ${'~ p '.repeat(length)}{ color: red } p { color: blue }`;

	it('is bounded: a selector that searches over and over matches nothing, and the others hold', () => {
		const { colour, styles } = page(chain(8), 60);
		assert.deepEqual([colour, styles.isPartial], ['blue', true]);
	});
	it('is none for selectors that people write', () => {
		const { colour, styles } = page(`p ~ p ~ p { color: green } ${chain(2)}`, 60);
		assert.deepEqual([colour, styles.isPartial], ['green', false]);
	});
});
