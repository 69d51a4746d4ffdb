import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { borderPx, fontPx, longhands, over, toColour, toPx, words } from '../../../../src/lib/formats/html/css.ts';

const said = (property: string, value: string) => Object.fromEntries(longhands(property, value));

describe('the longhands of a CSS declaration', () => {
	const thin = (side: string) => ({
		[`border-${side}-width`]: '1px',
		[`border-${side}-style`]: 'solid',
		[`border-${side}-color`]: 'red'
	});
	const cases: [property: string, value: string, expected: Record<string, string>][] = [
		['border-top', '1px solid red', thin('top')],
		['border-top', 'red 1px solid', thin('top')],
		['border-block-start', '1px solid red', thin('top')],
		['border-inline-end', 'solid red 1px', thin('inline-end')],
		['border-block', '1px solid red', { ...thin('top'), ...thin('bottom') }],
		['border-inline', '1px solid red', { ...thin('inline-start'), ...thin('inline-end') }],
		['border', '1px solid red', { ...thin('top'), ...thin('right'), ...thin('bottom'), ...thin('left') }],
		[
			'border-left',
			'none',
			{ 'border-left-width': 'medium', 'border-left-style': 'none', 'border-left-color': 'currentcolor' }
		],
		[
			'border-left',
			'thick rgb(1, 2, 3)',
			{ 'border-left-width': 'thick', 'border-left-style': 'none', 'border-left-color': 'rgb(1, 2, 3)' }
		],
		[
			'border-width',
			'1px 2px 3px',
			{
				'border-top-width': '1px',
				'border-right-width': '2px',
				'border-bottom-width': '3px',
				'border-left-width': '2px'
			}
		],
		[
			'border-color',
			'red rgb(0 0 0 / 50%)',
			{
				'border-top-color': 'red',
				'border-right-color': 'rgb(0 0 0 / 50%)',
				'border-bottom-color': 'red',
				'border-left-color': 'rgb(0 0 0 / 50%)'
			}
		],
		[
			'padding',
			'1pt 2pt 3pt 4pt',
			{ 'padding-top': '1pt', 'padding-right': '2pt', 'padding-bottom': '3pt', 'padding-left': '4pt' }
		],
		['padding-block', '1pt', { 'padding-top': '1pt', 'padding-bottom': '1pt' }],
		['padding-inline', '1pt 2pt', { 'padding-inline-start': '1pt', 'padding-inline-end': '2pt' }],
		['padding-inline-start', '1pt', { 'padding-inline-start': '1pt' }],
		['background', 'url("a b.png") no-repeat #abc', { 'background-color': '#abc' }],
		['background', 'url(a.png)', { 'background-color': 'transparent' }],
		['font-variant', 'small-caps', { 'font-variant-caps': 'small-caps' }],
		[
			'text-decoration',
			'underline double red',
			{ 'text-decoration-line': 'underline', 'text-decoration-style': 'double' }
		],
		['text-decoration', 'none', { 'text-decoration-line': 'none', 'text-decoration-style': 'solid' }],
		['--fern', '#123456', { '--fern': '#123456' }],
		['text-align', 'end', { 'text-align': 'end' }],
		['position', 'fixed', {}],
		['behavior', 'url(x)', {}]
	];
	for (const [property, value, expected] of cases)
		it(`${property}: ${value}`, () => assert.deepEqual(said(property, value), expected));

	it('font: all of its parts, the families as they stand', () => {
		assert.deepEqual(said('font', 'italic small-caps 700 12pt/1.4 "Source Sans 3", sans-serif'), {
			'font-style': 'italic',
			'font-weight': '700',
			'font-variant-caps': 'small-caps',
			'font-size': '12pt',
			'line-height': '1.4',
			'font-family': '"Source Sans 3", sans-serif'
		});
		assert.equal(said('font', 'x-large serif')['font-weight'], 'normal');
		assert.deepEqual(said('font', 'menu'), {});
	});
	it('cut a value at its spaces only', () => {
		assert.deepEqual(words('1px rgb(1, 2, 3) "a b" var(--x, 1px solid)'), [
			'1px',
			'rgb(1, 2, 3)',
			'"a b"',
			'var(--x, 1px solid)'
		]);
	});
});

describe('CSS colours', () => {
	const cases: [text: string, hex: string | undefined, opacity?: number][] = [
		['red', '#FF0000', 1],
		['#0a0', '#00AA00', 1],
		['#0a08', '#00AA00', 0x88 / 255],
		['#00aa0080', '#00AA00', 0x80 / 255],
		['rgb(10, 20, 30)', '#0A141E', 1],
		['rgb( 10, 20, 30 )', '#0A141E', 1],
		['rgba(10, 20, 30, 0.5)', '#0A141E', 0.5],
		['rgb(10 20 30 / 25%)', '#0A141E', 0.25],
		['hsl(120, 100%, 25%)', '#008000', 1],
		['transparent', '#FFFFFF', 0],
		['color-mix(in srgb, #000000 25%, #FFFFFF)', '#BFBFBF', 1],
		['color-mix(in srgb, red, transparent)', '#FF0000', 0.5],
		['color-mix(in srgb, red)', undefined],
		['ferngreen', undefined],
		['/0A', undefined],
		['', undefined]
	];
	for (const [text, hex, opacity] of cases)
		it(text || 'nothing', () => {
			const found = toColour(text);
			assert.equal(found?.hex, hex);
			if (hex) assert.ok(Math.abs(found!.opacity - opacity!) < 1e-9, String(found!.opacity));
		});
	it('currentcolor is the text’s', () => {
		assert.deepEqual(toColour('currentColor', '#123456'), { hex: '#123456', opacity: 1 });
		assert.equal(toColour('currentColor'), undefined);
	});
	it('show over what is below them', () => {
		assert.equal(over({ hex: '#000000', opacity: 0.5 }, '#FFFFFF'), over({ hex: '#000000', opacity: 0.5 }, undefined));
		assert.equal(over({ hex: '#000000', opacity: 0 }, '#123456'), '#123456');
		assert.equal(over({ hex: '#000000', opacity: 1 }, '#123456'), '#000000');
	});
});

describe('CSS lengths', () => {
	const close = (a: number | undefined, b: number) => assert.ok(a !== undefined && Math.abs(a - b) < 1e-9, String(a));
	it('are pixels, 96 to the inch', () => {
		close(toPx('1in', 16), 96);
		close(toPx('72pt', 16), 96);
		close(toPx('2.54cm', 16), 96);
		close(toPx('25.4mm', 16), 96);
		close(toPx('101.6Q', 16), 96);
		close(toPx('6pc', 16), 96);
		close(toPx('1.5em', 20), 30);
		close(toPx('1.5rem', 20), 24);
		close(toPx('50%', 20, 300), 150);
		close(toPx('0', 20), 0);
		close(toPx('1e1px', 20), 10);
		for (const none of ['50%', '12', 'auto', '', '1px 2px', '--3px']) assert.equal(toPx(none, 20), undefined, none);
	});
	it('of fonts and borders have names, too', () => {
		close(fontPx('small', 20), 13);
		close(fontPx('smaller', 24), 20);
		close(fontPx('larger', 20), 24);
		close(fontPx('150%', 20), 30);
		assert.equal(fontPx('huge', 20), undefined);
		assert.deepEqual(
			['thin', 'medium', 'thick', '2px', 'auto'].map((one) => borderPx(one, 16)),
			[1, 3, 5, 2, 0]
		);
	});
	it('never throw, whatever stands there', () => {
		fc.assert(
			fc.property(fc.string(), fc.string(), (property, value) => {
				for (const pair of longhands(property, value)) assert.equal(pair.length, 2);
				toColour(value);
				toPx(value, 16, 100);
			})
		);
	});
});
