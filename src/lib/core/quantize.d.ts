declare module 'quantize' {
	/** Modified median cut; false where there is nothing to cut. */
	export default function quantize(
		pixels: [number, number, number][],
		most: number
	): { palette(): [number, number, number][] } | false;
}
