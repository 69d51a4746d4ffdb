import { Rational } from './rational.ts';

/**
 * Units with their dimension and what one of them is in the first of its dimension, exactly. Sources: the SI brochure (9th
 * ed.), tables 2, 4 and 8; the yard and pound agreement of 1959 for in, ft, yd, mi, lb and oz; NIST SP 811, appendix B for
 * US gal; the UK Weights and Measures Act 1985 for imp gal. A bare gal is no unit: it could be either.
 */
const DIMENSIONS = {
	length: {
		m: '1',
		mm: '0.001',
		cm: '0.01',
		dm: '0.1',
		km: '1000',
		µm: '0.000001',
		in: '0.0254',
		ft: '0.3048',
		yd: '0.9144',
		mi: '1609.344',
		mile: '1609.344',
		miles: '1609.344'
	},
	area: {
		'm²': '1',
		'mm²': '0.000001',
		'cm²': '0.0001',
		'dm²': '0.01',
		'km²': '1000000',
		ha: '10000',
		a: '100',
		'in²': '0.00064516',
		'ft²': '0.09290304',
		'yd²': '0.83612736'
	},
	volume: {
		'm³': '1',
		'mm³': '0.000000001',
		'cm³': '0.000001',
		'dm³': '0.001',
		l: '0.001',
		L: '0.001',
		ml: '0.000001',
		mL: '0.000001',
		cl: '0.00001',
		dl: '0.0001',
		hl: '0.1',
		'ft³': '0.028316846592',
		'US gal': '0.003785411784',
		'imp gal': '0.00454609'
	},
	mass: { kg: '1', mg: '0.000001', g: '0.001', t: '1000', lb: '0.45359237', oz: '0.028349523125' },
	time: {
		s: '1',
		ms: '0.001',
		min: '60',
		h: '3600',
		d: '86400',
		days: '86400',
		day: '86400',
		weeks: '604800',
		week: '604800'
	},
	voltage: { V: '1', mV: '0.001', kV: '1000' },
	current: { A: '1', mA: '0.001', kA: '1000' },
	power: { W: '1', mW: '0.001', kW: '1000', MW: '1000000' },
	energy: { J: '1', kJ: '1000', MJ: '1000000', Wh: '3600', kWh: '3600000', MWh: '3600000000' },
	pressure: { Pa: '1', hPa: '100', kPa: '1000', MPa: '1000000', bar: '100000', mbar: '100' },
	force: { N: '1', kN: '1000', MN: '1000000' },
	frequency: { Hz: '1', kHz: '1000', MHz: '1000000', GHz: '1000000000' }
} as const;

export interface Unit {
	readonly dimension: string;
	/** What one is in the first unit of its dimension. */
	readonly factor: Rational;
}

const units = new Map<string, Unit>(
	Object.entries(DIMENSIONS).flatMap(([dimension, list]) =>
		Object.entries(list).map(([unit, factor]): [string, Unit] => [unit, { dimension, factor: Rational.parse(factor) }])
	)
);

/** Units as people type them, where that is not how they are written. */
const TYPED: Readonly<Record<string, string>> = {
	m2: 'm²',
	m3: 'm³',
	mm2: 'mm²',
	mm3: 'mm³',
	cm2: 'cm²',
	cm3: 'cm³',
	km2: 'km²',
	dm2: 'dm²',
	dm3: 'dm³',
	ft2: 'ft²',
	ft3: 'ft³',
	μm: 'µm'
};

/** A unit as it is written; any other word is a unit of its own, which goes with nothing else. */
export const unitName = (typed: string): string => TYPED[typed] ?? typed;
/** What is known of a unit; undefined for one that is its own dimension. */
export const unitOf = (name: string): Unit | undefined => units.get(name);
/** Units of durations rather than of times of an hour or less. */
export const DURATIONS: ReadonlySet<string> = new Set(['d', 'day', 'days', 'week', 'weeks']);
/** Temperatures count from different zeros: they are neither converted nor added up. */
export const isTemperature = (name: string): boolean => /^(°C|°F|K)$/.test(name);
