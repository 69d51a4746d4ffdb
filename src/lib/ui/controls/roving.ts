/** Where a key leads in a set of `count` items in rows of `columns`; undefined for a key that leads nowhere. */
export function nextItem(key: string, at: number, count: number, columns: number): number | undefined {
	const around = (to: number) => (to + count) % count;
	const within = (to: number) => (to >= 0 && to < count ? to : at);
	switch (key) {
		case 'ArrowRight':
			return around(at + 1);
		case 'ArrowLeft':
			return around(at - 1);
		case 'ArrowDown':
			return columns === 1 ? around(at + 1) : within(at + columns);
		case 'ArrowUp':
			return columns === 1 ? around(at - 1) : within(at - columns);
		case 'Home':
			return 0;
		case 'End':
			return count - 1;
		default:
			return undefined;
	}
}

/** A bar of controls of any kind of which one takes part in tabbing and the arrow keys lead to the others; none is chosen by that. */
export function rovingBar(bar: HTMLElement) {
	const controls = () => [...bar.querySelectorAll<HTMLElement>('button:not(:disabled), input:not(:disabled)')];
	function press(event: KeyboardEvent) {
		if (event.ctrlKey || event.metaKey || event.altKey) return;
		const items = controls();
		const next = nextItem(event.key, items.indexOf(event.target as HTMLElement), items.length, 1);
		if (next === undefined || !items.includes(event.target as HTMLElement)) return;
		event.preventDefault();
		event.stopPropagation();
		items[next]!.focus();
	}
	/** The one control that tabbing comes to: where it was left. */
	function stopAt(stop: EventTarget | null | undefined) {
		for (const item of controls()) item.tabIndex = item === stop ? 0 : -1;
	}
	const stay = ({ target }: FocusEvent) => stopAt(target);
	stopAt(controls()[0]);
	bar.addEventListener('keydown', press);
	bar.addEventListener('focusin', stay);
	return () => {
		bar.removeEventListener('keydown', press);
		bar.removeEventListener('focusin', stay);
	};
}

/**
 * A set of controls of which one takes part in tabbing and the arrow keys lead to the others (WAI-ARIA, roving
 * tabindex). `role` is that of the items. The item that is reached is chosen, unless `isChosen` is false: then it only has the
 * focus.
 */
export function roving(role: 'radio' | 'tab' | 'option' | 'menuitem', { columns = 1, isChosen = true } = {}) {
	return (set: HTMLElement) => {
		function press(event: KeyboardEvent) {
			if (event.ctrlKey || event.metaKey || event.altKey) return;
			const items = [...set.querySelectorAll<HTMLElement>(`[role=${role}]:not(:disabled)`)];
			const at = items.indexOf((event.target as HTMLElement).closest<HTMLElement>(`[role=${role}]`)!);
			const next = at < 0 ? undefined : nextItem(event.key, at, items.length, columns);
			if (next === undefined) return;
			event.preventDefault();
			event.stopPropagation();
			items[next]!.focus();
			if (isChosen && next !== at) items[next]!.click();
		}
		set.addEventListener('keydown', press);
		return () => set.removeEventListener('keydown', press);
	};
}
