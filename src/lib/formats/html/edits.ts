export type Piece = string | { readonly from: number; readonly to: number };

/** Replacements in the page's text, each of another place. */
export class PageEdits {
	private readonly edits: { start: number; end: number; text: string; order: number }[] = [];
	replace(start: number, end: number, text: string): void {
		this.edits.push({ start, end, text, order: this.edits.length });
	}
	insert(at: number, text: string): void {
		this.replace(at, at, text);
	}
	pieces(length: number): Piece[] {
		// At one place, what is inserted comes before what is replaced.
		this.edits.sort((a, b) => a.start - b.start || a.end - b.end || a.order - b.order);
		const pieces: Piece[] = [];
		let at = 0;
		for (const { start, end, text } of this.edits) {
			if (start < at) throw new Error(`Two changes of the page at ${start}.`);
			if (start > at) pieces.push({ from: at, to: start });
			if (text) pieces.push(text);
			at = Math.max(at, end);
		}
		pieces.push({ from: at, to: length });
		return pieces;
	}
}
