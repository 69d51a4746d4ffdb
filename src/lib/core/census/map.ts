import { EigenvalueDecomposition, Matrix } from 'ml-matrix';

/** A place on a map, both from −1 to 1. */
export interface Spot {
	readonly x: number;
	readonly y: number;
}

/**
 * Puts things on a map so that those which are far apart stand far apart, as well as a flat map can: classical
 * multidimensional scaling (Torgerson 1952), the distances of all pairs squared, centred twice, and its two largest
 * eigenvectors. Turned so that the thing farthest from the middle stands to the end and, of those beside the axis, the
 * farthest stands above: a map changes little where the things do. Costs the cube of how many there are.
 */
export function mapOf(count: number, distance: (a: number, b: number) => number): Spot[] {
	if (count === 0) return [];
	if (count === 1) return [{ x: 0, y: 0 }];
	const squares = Matrix.zeros(count, count);
	for (let a = 0; a < count; a++)
		for (let b = a + 1; b < count; b++) {
			const square = distance(a, b) ** 2;
			squares.set(a, b, square);
			squares.set(b, a, square);
		}
	const means = Array.from(
		{ length: count },
		(_, row) => squares.getRow(row).reduce((sum, one) => sum + one, 0) / count
	);
	const mean = means.reduce((sum, one) => sum + one, 0) / count;
	for (let a = 0; a < count; a++)
		for (let b = 0; b < count; b++) squares.set(a, b, -0.5 * (squares.get(a, b) - means[a]! - means[b]! + mean));
	const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(squares, { assumeSymmetric: true });
	const order = realEigenvalues.map((_, i) => i).sort((a, b) => realEigenvalues[b]! - realEigenvalues[a]!);
	const axis = (nth: number): number[] => {
		const at = order[nth]!;
		const length = Math.sqrt(Math.max(0, realEigenvalues[at]!));
		const along = Array.from({ length: count }, (_, i) => eigenvectorMatrix.get(i, at) * length);
		const farthest = along.reduce((far, one) => (Math.abs(one) > Math.abs(far) + 1e-9 ? one : far), 0);
		return farthest < 0 ? along.map((one) => -one) : along;
	};
	const [xs, ys] = [axis(0), axis(1)];
	const most = Math.max(...xs.map(Math.abs), ...ys.map(Math.abs)) || 1;
	return xs.map((x, i) => ({ x: x / most, y: ys[i]! / most }));
}
