import type { Role } from '$lib/workbench/roles.ts';
import type { Arrived } from '$lib/workbench/live.ts';
import type { Line } from '$lib/core/history.ts';
import type { StepInfo } from '$lib/server/history.ts';
import { callRoute, RequestError, type Method } from './api.ts';
import { Keeping } from './keeping.ts';
import { arrivedWords } from './live/live.svelte.ts';
import { notify, notifyError } from './notices.svelte.ts';
import { isRefused, ofOwn } from './people/who.ts';
import { turns } from './turns.ts';

/** Milliseconds after which a server that does not answer is asked again. */
const AGAIN_AFTER = 3_000;

/** Whether a request failed because nothing answered. */
export const isOffline = (error: unknown): boolean => error instanceof RequestError && error.body.code === 'offline';

/** Asks the server until it answers; `onWait` is called with each time that it does not. */
export async function answerOf<T>(request: () => Promise<T>, onWait: (error: RequestError) => void): Promise<T> {
	for (;;)
		try {
			return await request();
		} catch (error) {
			if (!isOffline(error)) throw error;
			onWait(error as RequestError);
			await new Promise((resolve) => setTimeout(resolve, AGAIN_AFTER));
		}
}

/** A change as the server takes it. */
export interface Order {
	/** What it does, as its step is called. */
	readonly label: string;
	readonly method: Method;
	readonly path: string;
	/** Says, besides the change, which version it was made of. */
	readonly body: { readonly version: number };
}

/** The steps that the server has, standing at the one of this number. Where their list is a moment older, at its last. */
export function lineAt(steps: readonly StepInfo[], number: number): Line<StepInfo> {
	const at = steps.findIndex(({ step }) => step === number);
	return { steps, at: at < 0 ? steps.length - 1 : at };
}

/** A history that the server keeps, as a page shows it. */
interface Shown {
	readonly line: () => Line<StepInfo>;
	/** Who may change it. */
	readonly needs: Role;
	/** The version that is shown. */
	readonly version: () => number;
	/** What takes the server to another step, by its number. */
	readonly orderTo: (step: number) => Pick<Order, 'path' | 'body'>;
	/** What is done with each answer before the next change is worked out. */
	readonly take: (answer: unknown) => unknown;
	/** Drops what is not saved yet and belongs to the step that is left. */
	readonly drop?: () => void;
	/** Loads what stands now and shows it. */
	readonly renew: () => unknown;
	/** What was tried stays on the screen when it is refused, rather than what stands. */
	readonly keepsTried?: true;
}

/** Senders that wait for a server, by their history: a page that is left and opened again finds its own. */
const waiting = new Map<string, Sender>();

/**
 * Sends the changes of a history that the server keeps (documents, drawings, the house), one after the other. A change is
 * worked out when those before it are saved, so that nobody runs into a change of their own. While the server does not
 * answer, the change is kept in the browser and sent again, also after its page was left; after a crash it is sent when
 * the page is opened next.
 */
export class Sender {
	isBusy = $state(false);
	/** What the change is called that the server does not answer to. */
	waiting: string | undefined = $state();
	private readonly inTurn = turns();
	private readonly kept: Keeping<Order>;

	private constructor(
		private readonly of: string,
		private shown: Shown
	) {
		this.kept = new Keeping(of);
	}

	/** The sender of a history, for the page that shows it now. `of` names the history in the browser's store. */
	static of(of: string, shown: Shown): Sender {
		const own = ofOwn(of);
		const sender = waiting.get(own);
		if (!sender) return new Sender(own, shown);
		sender.shown = shown;
		return sender;
	}

	/**
	 * Sends what `make` gives once its turn has come; where that is undefined there is nothing to do. Returns whether it was
	 * saved; why the server refused it is said. Where somebody else was first, it is said what they did, and `again` is
	 * offered, once what stands now is loaded.
	 */
	send(make: () => Order | undefined, again: () => unknown = () => this.send(make)): Promise<boolean> {
		return this.inTurn(async () => {
			if (isRefused(this.shown.needs)) return false;
			const order = make();
			return order ? this.deliver(order, again) : false;
		});
	}
	/** Goes to any other step of the line; `where` is asked once what is on its way is saved. */
	goTo(where: number | (() => number)): Promise<boolean> {
		return this.send(() => {
			const to = typeof where === 'number' ? where : where();
			const { steps, at } = this.shown.line();
			if (!steps[to] || to === at) return undefined;
			this.shown.drop?.();
			return { label: to < at ? 'undo' : 'redo', method: 'PUT', ...this.shown.orderTo(steps[to].step) };
		});
	}
	/** Undo and redo: a key pressed again while the first is on its way counts, too. */
	move(by: -1 | 1): Promise<boolean> {
		return this.goTo(() => this.shown.line().at + by);
	}

	/** Something stands at another version than is shown: once what is on its way is saved, it is shown, with who did it. */
	meet(arrived: Arrived): Promise<void> {
		return this.inTurn(async () => {
			if (arrived.version <= this.shown.version()) return;
			await this.shown.renew();
			const words = arrivedWords(arrived);
			if (words) notify(words);
		});
	}

	/** Sends what was kept when the browser went down, if nothing was changed since: `version` is what stands now. */
	async resume(version: number): Promise<void> {
		if (this.isBusy) return;
		const order = await this.kept.adopt();
		if (!order || this.isBusy) return;
		if (order.body.version !== version) this.kept.set(undefined);
		else if (await this.inTurn(() => this.deliver(order)))
			notify(`Saved now, as the server answers again: ${order.label}. Ctrl+Z takes it back.`);
	}

	private async deliver(order: Order, again?: () => unknown): Promise<boolean> {
		const { label, method, path, body } = order;
		this.isBusy = true;
		this.kept.set(order);
		try {
			const answer = await answerOf(
				() => callRoute(method, path, body),
				() => {
					this.waiting = label;
					waiting.set(this.of, this);
				}
			);
			this.kept.set(undefined);
			await this.shown.take(answer);
			return true;
		} catch (error) {
			this.kept.set(undefined);
			if (again && error instanceof RequestError && error.body.code === 'conflict')
				notify(error.message, 'error', {
					words: `Load it and do mine again: ${label}`,
					run: async () => {
						await this.shown.renew();
						await again();
					}
				});
			else notifyError(error);
			if (!this.shown.keepsTried) await this.shown.renew();
			return false;
		} finally {
			waiting.delete(this.of);
			this.waiting = undefined;
			this.isBusy = false;
		}
	}
}
