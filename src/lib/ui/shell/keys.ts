/** Whether a key press belongs to a field that takes text, and not to the screen. */
export function isTyping(event: Event): boolean {
	const target = event.target;
	return (
		target instanceof HTMLElement &&
		(target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) &&
		(target as HTMLInputElement).type !== 'checkbox'
	);
}
