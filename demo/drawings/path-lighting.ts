import { chance, closedCurve, curvePoints, frame, line, n, sheet, type Spot } from './sheet.ts';

const SCALE = 200;

interface Lamp {
	readonly kind: string;
	readonly name: string;
	readonly watt: number;
	readonly mount: string;
	readonly height: string;
}
const LAMPS = {
	post: { kind: 'lamp-post', name: 'Path lantern', watt: 18, mount: 'on a post', height: '3.2 m' },
	bollard: { kind: 'lamp-bollard', name: 'Low bollard', watt: 9, mount: 'on a footing', height: '0.8 m' },
	step: { kind: 'lamp-step', name: 'Step light', watt: 3, mount: 'in the wall', height: '0.2 m' },
	tree: { kind: 'lamp-tree', name: 'Tree uplight', watt: 12, mount: 'on a spike', height: '0.3 m' }
} as const satisfies Record<string, Lamp>;
type LampName = keyof typeof LAMPS;

/** Symbols around their middle, in millimetres of ground; about 4 mm on paper. */
const SYMBOLS = `<symbol id="lamp-post" overflow="visible"><title>Path lantern</title><circle r="950" fill="#F3C969" fill-opacity="0.28"/><circle r="420" fill="#FFFFFF" stroke="#2B2233" stroke-width="70"/><path d="M-297 -297L297 297M297 -297L-297 297" stroke="#2B2233" stroke-width="70"/></symbol>
<symbol id="lamp-bollard" overflow="visible"><title>Low bollard</title><circle r="700" fill="#F3C969" fill-opacity="0.3"/><circle r="300" fill="#2B2233"/><circle r="110" fill="#F3C969"/></symbol>
<symbol id="lamp-step" overflow="visible"><title>Step light</title><path d="M-420 0A420 420 0 0 0 420 0Z" fill="#F3C969" fill-opacity="0.5"/><path d="M-420 0H420V-180H-420Z" fill="#FFFFFF" stroke="#2B2233" stroke-width="60"/></symbol>
<symbol id="lamp-tree" overflow="visible"><title>Tree uplight</title><path d="M0 360L-700 -900H700Z" fill="#F3C969" fill-opacity="0.3"/><path d="M-330 330L0 -380L330 330Z" fill="#FFFFFF" stroke="#2B2233" stroke-width="70"/></symbol>`;

interface Circuit {
	readonly name: string;
	readonly ink: string;
	readonly fed: Spot;
	readonly along: readonly Spot[];
	readonly lamps: readonly (readonly [LampName, count: number])[];
	/** How far lamps stand from the middle of the path, to one side and the other. */
	readonly aside: number;
}

const HOUSE: Spot = [29_500, 27_500];
const CIRCUITS: readonly Circuit[] = [
	{
		name: 'C1',
		ink: '#C2410C',
		fed: HOUSE,
		along: [
			[26_000, 30_500],
			[18_500, 33_000],
			[11_500, 39_000],
			[9_000, 47_000]
		],
		lamps: [
			['post', 8],
			['bollard', 4]
		],
		aside: 1_500
	},
	{
		name: 'C2',
		ink: '#1F6F66',
		fed: HOUSE,
		along: [
			[27_500, 22_500],
			[20_500, 17_000],
			[13_000, 14_500],
			[6_500, 9_500]
		],
		lamps: [
			['post', 7],
			['tree', 5]
		],
		aside: 1_600
	},
	{
		name: 'C3',
		ink: '#6D2E5B',
		fed: HOUSE,
		along: [
			[33_500, 31_500],
			[35_000, 39_000],
			[30_500, 46_500],
			[22_500, 51_500]
		],
		lamps: [
			['bollard', 9],
			['step', 4]
		],
		aside: 1_400
	},
	{
		name: 'C4',
		ink: '#24324F',
		fed: HOUSE,
		along: [
			[35_500, 23_500],
			[42_000, 19_500],
			[47_500, 13_000],
			[50_500, 6_500]
		],
		lamps: [
			['bollard', 7],
			['step', 5]
		],
		aside: 1_400
	},
	{
		name: 'C5',
		ink: '#A16207',
		fed: HOUSE,
		along: [
			[37_500, 28_500],
			[44_500, 31_000],
			[49_000, 38_500],
			[48_000, 47_500]
		],
		lamps: [
			['post', 5],
			['tree', 6]
		],
		aside: 1_700
	}
];

/** Points evenly spread along a smooth line, each with the direction across it. */
function along(points: readonly Spot[], count: number) {
	const curve = curvePoints(points, false, 40);
	const lengths = [0];
	for (let i = 1; i < curve.length; i++)
		lengths.push(lengths[i - 1]! + Math.hypot(curve[i]![0] - curve[i - 1]![0], curve[i]![1] - curve[i - 1]![1]));
	const whole = lengths.at(-1)!;
	return Array.from({ length: count }, (_, k) => {
		const wanted = (whole * (k + 0.5)) / count;
		const i = Math.max(
			1,
			lengths.findIndex((length) => length >= wanted)
		);
		const [a, b] = [curve[i - 1]!, curve[i]!];
		const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
		return { x: a[0], y: a[1], across: [-(b[1] - a[1]) / length, (b[0] - a[0]) / length] as const };
	});
}

function circuit(
	{ name, ink, fed, along: path, lamps, aside }: Circuit,
	first: number
): { cable: string; lamps: string[] } {
	const kinds = lamps.flatMap(([kind, count]) => Array.from({ length: count }, () => kind));
	// Kinds take turns along the way, as far as they go round.
	const mixed = kinds
		.map((kind, i) => ({ kind, order: (i % lamps[0]![1]) + (i >= lamps[0]![1] ? 0.5 : 0) }))
		.sort((a, b) => a.order - b.order)
		.map(({ kind }) => kind);
	const spots = along(path, mixed.length).map(({ x, y, across }, i): Spot => {
		const side = (i % 2 ? 1 : -1) * (mixed[i] === 'tree' ? aside * 1.9 : aside);
		return [Math.round(x + across[0] * side), Math.round(y + across[1] * side)];
	});
	const written = spots.map(([x, y], i) => {
		const { kind, watt, mount, height, name: what } = LAMPS[mixed[i]!];
		const number = `L-${String(first + i).padStart(2, '0')}`;
		return `<use id="${number}" href="#${kind}" x="${x}" y="${y}" data-lamp="${number}" data-circuit="${name}" data-type="${what}" data-watt="${watt} W" data-mount="${mount}" data-height="${height}"/>
<text x="${x + 560}" y="${y - 420}" font-size="420" fill="#6B6172" font-family="'Libre Franklin', sans-serif">${number.slice(2)}</text>`;
	});
	const cable = `<path d="${line([fed, ...spots])}" fill="none" stroke="${ink}" stroke-width="70" stroke-dasharray="520 240" stroke-linejoin="round"/>`;
	return { cable, lamps: written };
}

function ground(): string {
	const random = chance(11);
	const paths = CIRCUITS.map(({ fed, along: way }) => line(curvePoints([fed, ...way], false, 30)));
	const blob = (x: number, y: number, r: number, points = 9): Spot[] =>
		Array.from({ length: points }, (_, i): Spot => {
			const reach = r * (0.78 + random() * 0.4);
			const angle = (2 * Math.PI * i) / points;
			return [x + Math.cos(angle) * reach, y + Math.sin(angle) * reach * 0.8];
		});
	const beds = (
		[
			[17_500, 24_500, 3_600],
			[10_500, 26_500, 2_900],
			[43_500, 25_200, 2_500],
			[23_500, 40_500, 4_200],
			[41_500, 42_000, 3_900],
			[38_500, 10_800, 3_800]
		] as const
	)
		.map(([x, y, r]) => `<path d="${closedCurve(blob(x, y, r))}"/>`)
		.join('');
	const crowns = Array.from({ length: 64 }, (): Spot => [4_000 + random() * 48_500, 5_000 + random() * 48_500])
		.filter(([x, y]) =>
			CIRCUITS.every(({ fed, along: way }) =>
				curvePoints([fed, ...way], false, 8).every(([px, py]) => Math.hypot(px - x, py - y) > 3_900)
			)
		)
		.filter(([x, y]) => Math.hypot(x - 13_500, y - 53_000) > 6_500 && y < 52_500)
		.slice(0, 26)
		.map(([x, y]) => {
			const r = 900 + random() * 900;
			return `<g transform="translate(${n(x)} ${n(y)})"><circle r="${n(r)}" fill="#6B8F3D" fill-opacity="0.13" stroke="#6B8F3D" stroke-opacity="0.55" stroke-width="40"/><circle r="110" fill="#7C5A3A" fill-opacity="0.7"/></g>`;
		})
		.join('');
	return `<g id="ground" data-layer="Ground and paths">
<rect x="2000" y="2000" width="80000" height="55400" fill="#F7F8F2"/>
<g fill="#E6EDDD" stroke="#B9CBA4" stroke-width="50">${beds}</g>
<path d="${closedCurve([
		[45_500, 51_500],
		[49_500, 50_500],
		[53_000, 52_500],
		[52_000, 55_000],
		[47_500, 55_300],
		[44_500, 54_000]
	])}" fill="#DCE9EE" stroke="#7FA3B3" stroke-width="60"/>
<g fill="none" stroke="#DCCFB8" stroke-width="2300" stroke-linejoin="round">${paths.map((d) => `<path d="${d}"/>`).join('')}</g>
<g fill="none" stroke="#FFFDF8" stroke-width="2050" stroke-linejoin="round">${paths.map((d) => `<path d="${d}"/>`).join('')}</g>
</g>
<g id="trees" data-layer="Trees">${crowns}</g>
<g id="house" data-layer="Buildings">
<g transform="translate(${HOUSE[0]} ${HOUSE[1]}) rotate(-12)"><rect x="-5200" y="-3000" width="10400" height="6000" fill="#FFFFFF" stroke="#2B2233" stroke-width="120"/><path d="M-5200 0H5200${Array.from({ length: 7 }, (_, i) => `M${-3_900 + i * 1_300} -3000V3000`).join('')}" stroke="#6B6172" stroke-width="40" fill="none"/><text y="-3500" font-size="760" text-anchor="middle" fill="#2B2233" font-family="'Libre Franklin', sans-serif">Fern house</text></g>
</g>`;
}

/** The garden's path lighting: 60 lamps on five circuits. */
export function pathLighting(): string {
	let first = 1;
	const circuits = CIRCUITS.map((one) => {
		const made = circuit(one, first);
		first += made.lamps.length;
		return { ...made, name: one.name };
	});
	return sheet(
		SCALE,
		'Path lighting',
		SYMBOLS,
		`${ground()}
<g id="cables" data-layer="Cables">${circuits.map(({ cable }) => cable).join('')}</g>
${circuits.map(({ name, lamps }) => `<g id="${name}" data-layer="Circuit ${name}">\n${lamps.join('\n')}\n</g>`).join('\n')}`,
		frame(
			{ title: 'Path lighting', subtitle: 'Lamps and circuits', number: 'TBG-047', scale: SCALE, date: '2031-04-11' },
			[268, 30],
			[0, 5, 10, 20]
		)
	);
}
