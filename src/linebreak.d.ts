declare module 'linebreak' {
	/** Finds the places where a line may break (UAX 14). */
	export default class LineBreaker {
		constructor(text: string);
		/** The next place, counted in UTF-16 units, and whether the line has to break there. Null at the end. */
		nextBreak(): { readonly position: number; readonly required: boolean } | null;
	}
}
