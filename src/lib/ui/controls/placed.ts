import {
	autoUpdate,
	computePosition,
	flip,
	offset,
	shift,
	size,
	type Placement,
	type ReferenceElement
} from '@floating-ui/dom';

/** So far from the edges of the window, at least. */
const EDGE = 8;

/** Keeps what floats beside an element and inside the window, above all else, wherever the element stands. Attach it to a `popover="manual"`. */
export const placedAt =
	(anchor: () => ReferenceElement | null | undefined, placement: Placement) => (floating: HTMLElement) => {
		const beside = anchor();
		if (!beside) return;
		floating.showPopover();
		const place = async () => {
			const { x, y } = await computePosition(beside, floating, {
				strategy: 'fixed',
				placement,
				middleware: [
					offset(4),
					flip({ padding: EDGE }),
					shift({ padding: EDGE }),
					size({
						padding: EDGE,
						apply({ availableHeight }) {
							floating.style.maxHeight = `${Math.max(120, availableHeight)}px`;
						}
					})
				]
			});
			floating.style.translate = `${x}px ${y}px`;
		};
		return autoUpdate(beside, floating, () => void place());
	};
