/** An exact fraction of whole numbers of any length: nothing is rounded until it is shown. */
export class Rational {
	/** In lowest terms; the denominator is above 0. */
	private constructor(
		readonly n: bigint,
		readonly d: bigint
	) {}

	static readonly ZERO = new Rational(0n, 1n);
	static readonly ONE = new Rational(1n, 1n);

	/** The fraction of two whole numbers; `d` is not 0. */
	static of(n: bigint | number, d: bigint | number = 1n): Rational {
		const [top, bottom] = [BigInt(n), BigInt(d)];
		const sign = bottom < 0n ? -1n : 1n;
		const common = greatestCommon(top < 0n ? -top : top, bottom * sign) || 1n;
		return new Rational((sign * top) / common, (sign * bottom) / common);
	}
	/** Reads a plain decimal (`-12.50`, no grouping, a point as its mark), or a fraction of two whole numbers (`1/3`). */
	static parse(text: string): Rational {
		const fraction = /^(-?\d+)\/(\d+)$/.exec(text);
		if (fraction) return Rational.of(BigInt(fraction[1]!), BigInt(fraction[2]!));
		const match = /^(-?)(\d*)\.?(\d*)$/.exec(text);
		if (!match || !(match[2] || match[3])) throw new RangeError(`“${text}” is not a plain decimal.`);
		const digits = BigInt(match[2]! + match[3]!);
		return Rational.of(match[1] ? -digits : digits, 10n ** BigInt(match[3]!.length));
	}

	get isZero(): boolean {
		return this.n === 0n;
	}
	get isNegative(): boolean {
		return this.n < 0n;
	}
	plus(other: Rational): Rational {
		return Rational.of(this.n * other.d + other.n * this.d, this.d * other.d);
	}
	minus(other: Rational): Rational {
		return this.plus(other.negated());
	}
	times(other: Rational): Rational {
		return Rational.of(this.n * other.n, this.d * other.d);
	}
	/** `other` is not 0. */
	over(other: Rational): Rational {
		return Rational.of(this.n * other.d, this.d * other.n);
	}
	negated(): Rational {
		return new Rational(-this.n, this.d);
	}
	abs(): Rational {
		return this.isNegative ? this.negated() : this;
	}
	/** Below, at or above 0 as this is less than, equal to or greater than another. */
	compare(other: Rational): number {
		const left = this.n * other.d;
		const right = other.n * this.d;
		return left < right ? -1 : left > right ? 1 : 0;
	}
	equals(other: Rational): boolean {
		return this.n === other.n && this.d === other.d;
	}

	/** How many decimals write it exactly; undefined where it never ends. */
	get decimals(): number | undefined {
		let rest = this.d;
		let twos = 0;
		let fives = 0;
		for (; rest % 2n === 0n; rest /= 2n) twos++;
		for (; rest % 5n === 0n; rest /= 5n) fives++;
		return rest === 1n ? Math.max(twos, fives) : undefined;
	}
	/** With so many decimals, rounded half away from zero; `-` for minus, a point as its mark, no grouping. */
	toFixed(decimals: number): string {
		const scale = 10n ** BigInt(decimals);
		const top = (this.n < 0n ? -this.n : this.n) * scale;
		const whole = (top * 2n + this.d) / (this.d * 2n);
		const digits = whole.toString().padStart(decimals + 1, '0');
		const text = decimals ? `${digits.slice(0, -decimals)}.${digits.slice(-decimals)}` : digits;
		return this.n < 0n && whole !== 0n ? `-${text}` : text;
	}
	/** A plain decimal without trailing zeros; what never ends is cut to 40 significant digits. */
	toPlain(): string {
		const exact = this.decimals;
		if (exact !== undefined) return this.toFixed(exact);
		const size = (this.abs().n / this.d).toString();
		let decimals = 40 - (size === '0' ? 0 : size.length);
		if (size === '0') for (let x = this.abs(); x.times(TEN).compare(Rational.ONE) < 0; x = x.times(TEN)) decimals++;
		return this.toFixed(Math.max(0, decimals))
			.replace(/(\.\d*?)0+$/, '$1')
			.replace(/\.$/, '');
	}
}
const TEN = Rational.of(10n);

function greatestCommon(a: bigint, b: bigint): bigint {
	while (b) [a, b] = [b, a % b];
	return a;
}
