/** Whatever the keyboard can reach and use now. */
const REACHABLE =
	'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea:not(:disabled), [tabindex]:not([tabindex="-1"])';
/** What opens over a page and closes again. */
const OPENED = 'dialog, [popover]';
/** So many places are remembered, for dialogs that were opened from something that is gone when they close. */
const REMEMBERED = 6;

/** Where the focus was. */
interface Place {
	readonly element: HTMLElement;
	/** What it stood in, the nearest first. */
	readonly around: readonly Element[];
	readonly name: string;
	readonly x: number;
	readonly y: number;
}

const nameOf = (element: Element): string =>
	element.getAttribute('aria-label') ?? element.textContent?.trim().slice(0, 80) ?? '';
const centreOf = (element: Element) => {
	const { left, top, width, height } = element.getBoundingClientRect();
	return { x: left + width / 2, y: top + height / 2 };
};

function placeOf(element: HTMLElement): Place {
	const around: Element[] = [];
	for (let node = element.parentElement; node && node !== document.body; node = node.parentElement) {
		around.push(node);
		// Once a dialog is closed, the focus goes back to what opened it.
		if (node.matches(OPENED)) break;
	}
	return { element, around, name: nameOf(element), ...centreOf(element) };
}

const isThere = (element: Element): boolean => element.isConnected && element.checkVisibility();
const isGone = ({ element }: Place): boolean => !isThere(element) || element.matches(':disabled');

/** What stands for a place now: itself, what is called the same beside it, else the nearest to where it was. */
function standIn({ element, around, name, x, y }: Place): HTMLElement | undefined {
	if (isThere(element)) return element.matches(':disabled') ? undefined : element;
	for (const box of around) {
		if (!isThere(box)) continue;
		const choices = [...box.querySelectorAll<HTMLElement>(REACHABLE)].filter((one) => one.checkVisibility());
		if (!choices.length) continue;
		const far = (one: Element) => {
			const centre = centreOf(one);
			return Math.hypot(centre.x - x, centre.y - y);
		};
		const alike = choices.find((one) => name !== '' && nameOf(one) === name);
		return alike ?? choices.reduce((best, one) => (far(one) < far(best) ? one : best));
	}
	return undefined;
}

/**
 * Gives the focus a place again where what had it is taken away or switched off (a button that did its work, a dialog
 * that closed): what stands there now, else where it was before. Whoever lets go of the focus is left alone.
 */
export function keepFocus() {
	let places: Place[] = [];
	const isNowhere = () => !document.activeElement || document.activeElement === document.body;

	const remember = ({ target }: FocusEvent) => {
		if (target instanceof HTMLElement && target !== document.body)
			places = [placeOf(target), ...places.filter(({ element }) => element !== target)].slice(0, REMEMBERED);
	};
	const leave = ({ relatedTarget }: FocusEvent) => {
		const [place] = places;
		if (relatedTarget || !place || place.element.closest(OPENED)) return;
		setTimeout(() => {
			if (document.hasFocus() && isNowhere() && place === places[0] && !isGone(place)) places = [];
		});
	};
	const restore = () => {
		const [last] = places;
		if (!last || !isNowhere() || !isGone(last) || document.querySelector('dialog[open]:not(:focus-within)')) return;
		// What is only switched off comes back, and has the focus then.
		if (isThere(last.element)) return;
		for (const place of places) {
			const found = standIn(place);
			if (!found) continue;
			found.focus({ preventScroll: true });
			return;
		}
	};
	const observer = new MutationObserver((records) => {
		restore();
		for (const { attributeName, target } of records)
			if (attributeName === 'disabled' && isNowhere() && target === places[0]?.element && !isGone(places[0]))
				places[0].element.focus({ preventScroll: true });
	});
	document.addEventListener('focusin', remember);
	document.addEventListener('focusout', leave);
	observer.observe(document.body, {
		childList: true,
		subtree: true,
		attributes: true,
		attributeFilter: ['disabled', 'open']
	});
	return {
		/** The page is left: where the focus was on it is nowhere on the next. */
		forget: () => {
			places = [];
		},
		stop: () => {
			observer.disconnect();
			document.removeEventListener('focusin', remember);
			document.removeEventListener('focusout', leave);
		}
	};
}

/** On arrival the focus stands at the title of the page, past the rail, unless the page put it somewhere itself. */
export function focusArrival(): void {
	if (document.activeElement && document.activeElement !== document.body) return;
	const title = document.querySelector<HTMLElement>('h1');
	title?.setAttribute('tabindex', '-1');
	title?.focus({ preventScroll: true });
}
