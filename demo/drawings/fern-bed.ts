import { chance, closedCurve, curvePoints, distanceTo, frame, isInside, line, n, sheet, type Spot } from './sheet.ts';

interface Species {
	readonly key: string;
	readonly name: string;
	readonly common: string;
	readonly pot: string;
	/** Metres between plants of a kind. */
	readonly spacing: number;
	readonly supplier: string;
	readonly count: number;
	readonly inks: readonly [fill: string, stroke: string];
	/** How it is drawn: blades of a rosette, or a ring of leaves. */
	readonly blades: number;
	readonly way: 'fronds' | 'leaves' | 'spokes';
}

const SPECIES: readonly Species[] = [
	{
		key: 'Ma',
		name: 'Matteuccia struthiopteris',
		common: 'Shuttlecock fern',
		pot: '5 L',
		spacing: 0.9,
		supplier: 'Lowfield Nursery',
		count: 9,
		inks: ['#B9D3B4', '#2F5D50'],
		blades: 13,
		way: 'fronds'
	},
	{
		key: 'Os',
		name: 'Osmunda regalis',
		common: 'Royal fern',
		pot: '10 L',
		spacing: 1.1,
		supplier: 'Stillwater Plants',
		count: 5,
		inks: ['#F0D9BE', '#A8703A'],
		blades: 11,
		way: 'fronds'
	},
	{
		key: 'Df',
		name: 'Dryopteris filix-mas',
		common: 'Male fern',
		pot: '3 L',
		spacing: 0.7,
		supplier: 'Harrow Lane Ferns',
		count: 16,
		inks: ['#CFE0CB', '#4B7A55'],
		blades: 9,
		way: 'fronds'
	},
	{
		key: 'Da',
		name: 'Dryopteris affinis',
		common: 'Golden-scaled fern',
		pot: '3 L',
		spacing: 0.7,
		supplier: 'Harrow Lane Ferns',
		count: 11,
		inks: ['#E4E3B5', '#7F7A2E'],
		blades: 9,
		way: 'fronds'
	},
	{
		key: 'Ps',
		name: 'Polystichum setiferum',
		common: 'Soft shield fern',
		pot: '3 L',
		spacing: 0.65,
		supplier: 'Harrow Lane Ferns',
		count: 14,
		inks: ['#D5E5DA', '#3F7C6B'],
		blades: 8,
		way: 'fronds'
	},
	{
		key: 'Pm',
		name: 'Polystichum munitum',
		common: 'Sword fern',
		pot: '5 L',
		spacing: 0.75,
		supplier: 'Lowfield Nursery',
		count: 8,
		inks: ['#BFD4CF', '#28595A'],
		blades: 12,
		way: 'spokes'
	},
	{
		key: 'At',
		name: 'Athyrium filix-femina',
		common: 'Lady fern',
		pot: '2 L',
		spacing: 0.6,
		supplier: 'Lowfield Nursery',
		count: 15,
		inks: ['#DDEBC8', '#6B8F3D'],
		blades: 7,
		way: 'fronds'
	},
	{
		key: 'An',
		name: 'Athyrium niponicum',
		common: 'Painted fern',
		pot: '1 L',
		spacing: 0.42,
		supplier: 'Stillwater Plants',
		count: 21,
		inks: ['#E2DCE8', '#7A5A8C'],
		blades: 6,
		way: 'leaves'
	},
	{
		key: 'As',
		name: 'Asplenium scolopendrium',
		common: 'Hart’s-tongue',
		pot: '1 L',
		spacing: 0.38,
		supplier: 'Harrow Lane Ferns',
		count: 24,
		inks: ['#D3E6BF', '#557A2B'],
		blades: 5,
		way: 'leaves'
	},
	{
		key: 'Bs',
		name: 'Blechnum spicant',
		common: 'Hard fern',
		pot: '1 L',
		spacing: 0.38,
		supplier: 'Stillwater Plants',
		count: 18,
		inks: ['#CBDDD6', '#3E6D63'],
		blades: 7,
		way: 'spokes'
	},
	{
		key: 'On',
		name: 'Onoclea sensibilis',
		common: 'Sensitive fern',
		pot: '2 L',
		spacing: 0.48,
		supplier: 'Lowfield Nursery',
		count: 13,
		inks: ['#E9E6C4', '#94893A'],
		blades: 6,
		way: 'leaves'
	},
	{
		key: 'Av',
		name: 'Adiantum venustum',
		common: 'Maidenhair',
		pot: '1 L',
		spacing: 0.34,
		supplier: 'Stillwater Plants',
		count: 6,
		inks: ['#DCE6E8', '#5B7C8D'],
		blades: 8,
		way: 'leaves'
	},
	{
		key: 'Pv',
		name: 'Polypodium vulgare',
		common: 'Polypody',
		pot: '1 L',
		spacing: 0.36,
		supplier: 'Harrow Lane Ferns',
		count: 12,
		inks: ['#E6D9C8', '#8A5F3C'],
		blades: 5,
		way: 'spokes'
	},
	{
		key: 'Cy',
		name: 'Cystopteris fragilis',
		common: 'Brittle bladder fern',
		pot: '1 L',
		spacing: 0.32,
		supplier: 'Stillwater Plants',
		count: 8,
		inks: ['#E8EFEC', '#6B8F8A'],
		blades: 9,
		way: 'spokes'
	}
];

const SCALE = 50;

/** A plant seen from above, around its middle, in millimetres of ground. */
function symbol({ key, name, spacing, inks: [fill, stroke], blades, way }: Species): string {
	const r = spacing * 420;
	const pieces = [`<circle r="${n(r)}" fill="${fill}" fill-opacity="0.72" stroke="${stroke}" stroke-width="11"/>`];
	for (let i = 0; i < blades; i++) {
		const turn = n((360 / blades) * i);
		const blade =
			way === 'fronds'
				? `<path d="M0 0Q${n(r * 0.17)} ${n(-r * 0.5)} 0 ${n(-r * 0.93)}Q${n(-r * 0.17)} ${n(-r * 0.5)} 0 0Z" fill="${stroke}" fill-opacity="0.28" stroke="${stroke}" stroke-width="6"/>`
				: way === 'leaves'
					? `<ellipse cx="0" cy="${n(-r * 0.52)}" rx="${n(r * 0.2)}" ry="${n(r * 0.38)}" fill="${stroke}" fill-opacity="0.3" stroke="${stroke}" stroke-width="5"/>`
					: `<path d="M0 ${n(-r * 0.14)}V${n(-r * 0.94)}M${n(-r * 0.13)} ${n(-r * 0.62)}L0 ${n(-r * 0.48)}L${n(r * 0.13)} ${n(-r * 0.62)}" fill="none" stroke="${stroke}" stroke-width="8"/>`;
		pieces.push(`<g transform="rotate(${turn})">${blade}</g>`);
	}
	pieces.push(`<circle r="${n(Math.max(22, r * 0.1))}" fill="${stroke}"/>`);
	return `<symbol id="${key.toLowerCase()}" overflow="visible"><title>${name}</title>${pieces.join('')}</symbol>`;
}

const BED: readonly Spot[] = [
	[1_250, 8_150],
	[1_150, 6_300],
	[2_250, 4_300],
	[3_500, 1_900],
	[6_000, 1_050],
	[8_600, 1_700],
	[11_000, 2_300],
	[12_900, 4_100],
	[13_300, 6_900],
	[12_700, 9_400],
	[10_900, 11_400],
	[8_300, 12_650],
	[5_400, 12_500],
	[2_700, 11_200]
];
const PATH: readonly Spot[] = [
	[900, 9_050],
	[2_200, 8_450],
	[4_000, 8_300],
	[6_000, 8_700],
	[8_000, 7_900],
	[9_800, 6_300],
	[11_600, 5_350],
	[13_600, 5_150]
];

/** Trees that stay. */
const TRUNKS: readonly Spot[] = [
	[3_350, 3_350],
	[11_650, 8_500]
];

interface Plant {
	readonly species: Species;
	readonly x: number;
	readonly y: number;
	readonly turn: number;
	readonly number: number;
}

/** Plants in drifts of a kind, none closer to another than both need, none on the path. */
function plant(): Plant[] {
	const random = chance(2031);
	const outline = curvePoints(BED);
	const path = curvePoints(PATH, false);
	const plants: Plant[] = [];
	const radius = ({ spacing }: Species) => spacing * 420;
	const isFree = (x: number, y: number, species: Species) =>
		isInside([x, y], outline) &&
		distanceTo([x, y], outline) > radius(species) + 120 &&
		distanceTo([x, y], path) > radius(species) + 560 &&
		distanceTo([x, y], TRUNKS) > radius(species) + 220 &&
		plants.every(
			(other) => Math.hypot(other.x - x, other.y - y) > (radius(species) + radius(other.species)) * 1.02 + 20
		);
	for (const species of SPECIES) {
		let left = species.count;
		let tries = 0;
		while (left > 0 && tries++ < 4_000) {
			const heart: Spot = [1_200 + random() * 12_000, 1_200 + random() * 11_400];
			if (!isFree(heart[0], heart[1], species)) continue;
			const drift = Math.min(left, 2 + Math.floor(random() * 5));
			for (let i = 0, attempts = 0; i < drift && attempts < 60; attempts++) {
				const angle = random() * 2 * Math.PI;
				const reach = i === 0 ? 0 : Math.sqrt(random()) * species.spacing * 1_900;
				const [x, y] = [heart[0] + Math.cos(angle) * reach, heart[1] + Math.sin(angle) * reach];
				if (!isFree(x, y, species)) continue;
				plants.push({ species, x: Math.round(x), y: Math.round(y), turn: Math.round(random() * 360), number: 0 });
				i++;
				left--;
			}
		}
	}
	return plants.map((one, i) => ({ ...one, number: i + 1 }));
}

const use = ({ species, x, y, turn, number }: Plant): string => {
	const { key, name, common, pot, spacing, supplier } = species;
	const said = Object.entries({ key, species: name, common, pot, spacing: `${spacing.toFixed(2)} m`, supplier })
		.map(([attribute, value]) => ` data-${attribute}="${value}"`)
		.join('');
	return `<use id="p${String(number).padStart(3, '0')}" href="#${key.toLowerCase()}" x="${x}" y="${y}" transform="rotate(${turn} ${x} ${y})"${said}/>`;
};

function ground(plants: readonly Plant[]): string {
	const random = chance(7);
	const outline = curvePoints(BED);
	const path = curvePoints(PATH, false, 24);
	const stones = path
		.filter((_, i) => i % 9 === 4 && i < path.length - 8)
		.map(
			([x, y]) =>
				`<ellipse cx="${n(x + (random() - 0.5) * 300)}" cy="${n(y + (random() - 0.5) * 300)}" rx="${n(150 + random() * 90)}" ry="${n(110 + random() * 60)}" transform="rotate(${n(random() * 90)} ${n(x)} ${n(y)})"/>`
		)
		.join('');
	const specks = Array.from({ length: 420 }, () => [1_000 + random() * 12_500, 1_000 + random() * 11_800] as const)
		.filter((spot) => isInside(spot, outline) && distanceTo(spot, path) > 620)
		.map(([x, y]) => `<circle cx="${n(x)}" cy="${n(y)}" r="${n(10 + random() * 14)}"/>`)
		.join('');
	const trees = TRUNKS.map(
		([x, y]) =>
			`<g transform="translate(${x} ${y})"><circle r="1500" fill="#6B8F3D" fill-opacity="0.07" stroke="#6B8F3D" stroke-width="14" stroke-dasharray="120 70"/><circle r="130" fill="#7C5A3A"/><path d="M-90 0H90M0 -90V90" stroke="#FBF8F3" stroke-width="16"/></g>`
	).join('');
	return `<g id="bed" data-layer="Bed and path">
<path d="${closedCurve(BED)}" fill="#F6F2E7" stroke="#7C5A3A" stroke-width="36"/>
<g fill="#C9B99C" fill-opacity="0.7">${specks}</g>
<path d="${line(path)}" fill="none" stroke="#E7DAC3" stroke-width="1000"/>
<path d="${line(path)}" fill="none" stroke="#FBF8F3" stroke-width="860"/>
<g fill="#DCCFB8" stroke="#B7A68A" stroke-width="12">${stones}</g>
</g>
<g id="plants" data-layer="Plants">
${plants.map(use).join('\n')}
</g>
<g id="trees" data-layer="Trees to keep">${trees}</g>`;
}

const drawn = (plants: readonly Plant[]): string =>
	sheet(
		SCALE,
		'Fern bed, planting plan',
		SPECIES.map(symbol).join('\n'),
		ground(plants),
		frame(
			{ title: 'Fern bed', subtitle: 'Planting plan', number: 'TBG-031', scale: SCALE, date: '2031-05-02' },
			[262, 30],
			[0, 1, 2, 3, 5]
		)
	);

/** The plan as it was when its schedule was made. */
export const fernBedBefore = (): string => {
	const all = plant();
	// Two shuttlecock ferns and the polypody came later; a stand of maidenhair went.
	return drawn(all.filter(({ species, number }) => species.key !== 'Pv' && !(species.key === 'Ma' && number > 7)));
};

/** The plan as it is drawn now. */
export const fernBedNow = (): string => drawn(plant().filter(({ species }) => species.key !== 'Av'));
