/** Figures that look like chance and are the same each time (mulberry32). */
export function chance(seed: number): () => number {
	let state = seed;
	return () => {
		state = (state + 0x6d2b79f5) | 0;
		let t = Math.imul(state ^ (state >>> 15), 1 | state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
	};
}

export type Spot = readonly [x: number, y: number];
export const n = (value: number): string => Number(value.toFixed(1)).toString();

/** A smooth closed line through some points (Catmull–Rom, as Bézier curves). */
export function closedCurve(points: readonly Spot[]): string {
	const at = (i: number) => points[(i + points.length) % points.length]!;
	const pieces = points.map((_, i) => {
		const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
		return `C${n(b[0] + (c[0] - a[0]) / 6)} ${n(b[1] + (c[1] - a[1]) / 6)} ${n(c[0] - (d[0] - b[0]) / 6)} ${n(c[1] - (d[1] - b[1]) / 6)} ${n(c[0])} ${n(c[1])}`;
	});
	return `M${n(points[0]![0])} ${n(points[0]![1])}${pieces.join('')}Z`;
}

/** Points on a closed smooth line, close together. */
export function curvePoints(points: readonly Spot[], closed = true, steps = 12): Spot[] {
	const at = (i: number) =>
		closed ? points[(i + points.length) % points.length]! : points[Math.min(Math.max(i, 0), points.length - 1)]!;
	const out: Spot[] = [];
	for (let i = 0; i < points.length - (closed ? 0 : 1); i++)
		for (let k = 0; k < steps; k++) {
			const t = k / steps;
			const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
			const on = (axis: 0 | 1) =>
				0.5 *
				(2 * b[axis] +
					(c[axis] - a[axis]) * t +
					(2 * a[axis] - 5 * b[axis] + 4 * c[axis] - d[axis]) * t * t +
					(3 * b[axis] - a[axis] - 3 * c[axis] + d[axis]) * t * t * t);
			out.push([on(0), on(1)]);
		}
	return out;
}

export const line = (points: readonly Spot[]): string => `M${points.map(([x, y]) => `${n(x)} ${n(y)}`).join('L')}`;

export function isInside([x, y]: Spot, polygon: readonly Spot[]): boolean {
	let inside = false;
	polygon.forEach(([ax, ay], i) => {
		const [bx, by] = polygon[(i + polygon.length - 1) % polygon.length]!;
		if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
	});
	return inside;
}

export function distanceTo([x, y]: Spot, points: readonly Spot[]): number {
	return points.reduce((least, [px, py]) => Math.min(least, Math.hypot(px - x, py - y)), Infinity);
}

interface Block {
	readonly title: string;
	readonly subtitle: string;
	readonly number: string;
	readonly scale: number;
	readonly date: string;
}

/** The frame of an A3 sheet on its long side with its title block; lengths are millimetres of paper. */
export function frame({ title, subtitle, number, scale, date }: Block, north: Spot, bar: readonly number[]): string {
	const [x, y, width] = [284, 262, 126];
	const text = (tx: number, ty: number, size: number, words: string, more = '') =>
		`<text x="${tx}" y="${ty}" font-size="${size}"${more}>${words}</text>`;
	const barUnits = 1_000 / scale;
	const ticks = bar
		.slice(0, -1)
		.map((from, i) => {
			const to = bar[i + 1]!;
			return `<rect x="${n(16 + from * barUnits)}" y="279" width="${n((to - from) * barUnits)}" height="1.6" fill="${i % 2 ? '#FFFFFF' : '#2B2233'}" stroke="#2B2233" stroke-width="0.18"/>`;
		})
		.join('');
	const labels = bar.map((m, i) =>
		text(16 + m * barUnits, 277.4, 2.4, i === bar.length - 1 ? `${m} m` : String(m), ' text-anchor="middle"')
	);
	return `<g id="frame" data-layer="Frame and title" font-family="'Libre Franklin', sans-serif" fill="#2B2233">
<rect x="10" y="10" width="400" height="277" fill="none" stroke="#2B2233" stroke-width="0.7"/>
<path d="M${x} ${y}H${x + width}M${x} ${y}V287M${x + 88} ${y}V287M${x + 88} ${y + 8.4}H410M${x + 88} ${y + 16.8}H410" fill="none" stroke="#2B2233" stroke-width="0.35"/>
${text(x + 4, y + 6, 2.5, 'THORNMERE BOTANIC GARDEN', ' letter-spacing="0.35" fill="#2F5D50" font-weight="600"')}
${text(x + 4, y + 14, 6.2, title, ` font-family="'Source Serif 4', serif" font-weight="600"`)}
${text(x + 4, y + 20.4, 3, subtitle, ' fill="#6B6172"')}
${text(x + 91, y + 3.6, 1.8, 'Drawing', ' fill="#6B6172"')}${text(x + 91, y + 7.1, 3, number, ' font-weight="600"')}
${text(x + 91, y + 12, 1.8, 'Scale on A3', ' fill="#6B6172"')}${text(x + 91, y + 15.5, 3, `1:${scale}`, ' font-weight="600"')}
${text(x + 91, y + 20.2, 1.8, 'Drawn', ' fill="#6B6172"')}${text(x + 91, y + 23.4, 3, date, ' font-weight="600"')}
<g transform="translate(${north[0]} ${north[1]})"><circle r="7" fill="none" stroke="#2B2233" stroke-width="0.25"/><path d="M0 -9.5L3.4 5.4L0 2.6Z" fill="#2B2233"/><path d="M0 -9.5L-3.4 5.4L0 2.6Z" fill="none" stroke="#2B2233" stroke-width="0.25"/>${text(0, -10.6, 3.2, 'N', ' text-anchor="middle" font-weight="700"')}</g>
${ticks}${labels.join('')}
</g>`;
}

/** An A3 sheet on its long side; inside the root the unit is a millimetre of ground. */
export const sheet = (scale: number, title: string, definitions: string, ground: string, paper: string): string =>
	`<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="420mm" height="297mm" viewBox="0 0 ${420 * scale} ${297 * scale}" data-scale="1:${scale}" data-unit="mm">
<title>${title}</title>
<defs>
${definitions}
</defs>
<rect width="100%" height="100%" fill="#FFFFFF"/>
${ground}
<g transform="scale(${scale})">
${paper}
</g>
</svg>
`;
