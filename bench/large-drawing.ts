import { chance } from '../demo/drawings/sheet.ts';

const OBJECTS = 50_000;

/** A drawing of 50,000 objects of 24 kinds in about 20 MB, at 1:500 on a large sheet. */
export function largeDrawing(): Uint8Array<ArrayBuffer> {
	const random = chance(50);
	const symbols = Array.from(
		{ length: 24 },
		(_, k) =>
			`<symbol id="kind-${k}" overflow="visible"><title>Kind ${k}</title><circle r="${200 + k * 12}" fill="#${(0x886644 + k * 0x0a0507).toString(16)}" fill-opacity="0.5" stroke="#2B2233" stroke-width="20"/><path d="M-150 0H150M0 -150V150" stroke="#2B2233" stroke-width="18"/></symbol>`
	).join('\n');
	const uses = Array.from({ length: OBJECTS }, (_, i) => {
		const kind = i % 24;
		const x = Math.round(20_000 + random() * 550_000);
		const y = Math.round(20_000 + random() * 380_000);
		return `<use id="o${i}" href="#kind-${kind}" x="${x}" y="${y}" transform="rotate(${i % 360} ${x} ${y})" data-number="N-${i}" data-species="Species ${kind} of the long border, planted from seed" data-bed="Bed ${i % 140}" data-pot="${1 + (kind % 5)} L" data-spacing="0.${10 + (i % 80)} m" data-supplier="Nursery ${i % 17} by the lower road, second gate" data-note="Checked against the planting book on page ${i % 311}; watered in with the next round"/>`;
	}).join('\n');
	return new TextEncoder().encode(
		`<svg xmlns="http://www.w3.org/2000/svg" width="1189mm" height="841mm" viewBox="0 0 594500 420500" data-scale="1:500" data-unit="mm">\n<defs>${symbols}</defs>\n<g id="all" data-layer="Planting">\n${uses}\n</g>\n</svg>\n`
	);
}
