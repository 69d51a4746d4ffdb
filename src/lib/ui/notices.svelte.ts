export interface Notice {
	readonly id: number;
	readonly kind: 'done' | 'error';
	readonly text: string;
	/** What can be done about it at once. */
	readonly action?: { readonly words: string; readonly run: () => unknown };
}

let next = 0;
export const notices = $state<{ list: Notice[] }>({ list: [] });

/** Says something at the foot of the screen. Errors stay until they are put away. */
export function notify(text: string, kind: Notice['kind'] = 'done', action?: Notice['action']): void {
	const id = next++;
	notices.list = [...notices.list.slice(-4), { id, kind, text, ...(action && { action }) }];
	if (kind === 'done') setTimeout(() => dismiss(id), action ? 12_000 : 5_000);
}

export function dismiss(id: number): void {
	notices.list = notices.list.filter((notice) => notice.id !== id);
}

/** For event handlers: says the sentence of what went wrong. */
export const notifyError = (error: unknown): void =>
	notify(error instanceof Error ? error.message : String(error), 'error');
