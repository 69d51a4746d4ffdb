/** A key of a screen or a control: what runs it, what it does, and the words for the list of keys. */
export interface Shortcut {
	/**
	 * Strokes that run it: a key as `KeyboardEvent.key` calls it, after the modifiers it needs (`Ctrl+Shift+Z`, `Alt+1`).
	 * `Ctrl` is the command key of a Mac, too. A single character without Ctrl or Alt counts in either case and with or
	 * without Shift, as layouts differ in where it stands. `character` is any key that writes one.
	 */
	readonly keys: readonly string[];
	/** The action; where there is none, something else acts on the key and this only lists it. */
	readonly run?: (event: KeyboardEvent) => void;
	/** What it does, for the list of keys; undefined leaves it out of the list. */
	readonly does?: string;
	/** How the list writes the keys; their strokes unless given. */
	readonly shown?: string;
	/** Whether it acts now; where it does not, the key is left to whatever else wants it. */
	readonly when?: (event: KeyboardEvent) => boolean;
	/** Whether it acts while a field that takes text has the focus. */
	readonly whileTyping?: boolean;
}

/** Whether a key press belongs to a field that takes text, and not to the screen. */
export function isTyping(event: Event): boolean {
	const target = event.target;
	return (
		target instanceof HTMLElement &&
		(target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) &&
		(target as HTMLInputElement).type !== 'checkbox'
	);
}

type Stroke = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>;

/** Whether a key press is a stroke as {@link Shortcut.keys} writes it. */
export function isStroke(event: Stroke, stroke: string): boolean {
	const parts = stroke.split(/\+(?=.)/);
	const key = parts.pop()!;
	const [ctrl, alt, shift] = ['Ctrl', 'Alt', 'Shift'].map((name) => parts.includes(name));
	if ((event.ctrlKey || event.metaKey) !== ctrl || event.altKey !== alt) return false;
	if (key === 'character') return event.key.length === 1;
	if (key.length === 1) {
		if ((ctrl || alt || shift) && event.shiftKey !== shift) return false;
		return event.key.toLowerCase() === key.toLowerCase();
	}
	return event.key === key && event.shiftKey === shift;
}

/** Runs the first shortcut that a key press is a stroke of and that acts now; whether there was one. */
export function runShortcut(list: readonly Shortcut[], event: KeyboardEvent, isInField = false): boolean {
	for (const { keys, run, when, whileTyping } of list) {
		if (!run || (isInField && !whileTyping) || !keys.some((stroke) => isStroke(event, stroke))) continue;
		if (when && !when(event)) continue;
		event.preventDefault();
		run(event);
		return true;
	}
	return false;
}

/** Handler of the keys of one control: what it runs goes no further. */
export const keysOf =
	(list: readonly Shortcut[]) =>
	(event: KeyboardEvent): void => {
		if (runShortcut(list, event)) event.stopPropagation();
	};

/** Undo and redo, as every screen has them; `by` is how many steps to go. */
export const undoKeys = (move: (by: -1 | 1) => unknown): Shortcut[] => [
	{ keys: ['Ctrl+Z'], does: 'undo', run: () => void move(-1) },
	{ keys: ['Ctrl+Shift+Z'], does: 'redo', run: () => void move(1) }
];

/** The key that leads to the screen's field for finding. */
export const findKey = (does: string): Shortcut => ({
	keys: ['/'],
	does,
	run: () => document.querySelector<HTMLElement>('[data-find]')?.focus()
});
