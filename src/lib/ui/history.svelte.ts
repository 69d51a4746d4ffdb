import { callRoute, RequestError, type Method } from './api.ts';
import { Keeping } from './keeping.ts';
import { notify, notifyError } from './notices.svelte.ts';
import { turns } from './turns.ts';

/** A change as the server takes it. */
export interface Order {
	/** What it does, as its step is called. */
	readonly label: string;
	readonly method: Method;
	readonly path: string;
	/** Says, besides the change, which version it was made of. */
	readonly body: { readonly version: number };
}

/** Milliseconds after which a server that does not answer is asked again. */
const AGAIN_AFTER = 3_000;

/**
 * Sends the changes of a history that the server keeps (documents, drawings, the house), one after the other. A change is
 * worked out when those before it are saved, so that nobody runs into a change of their own. While the server does not
 * answer, the change is kept in the browser and sent again; after a crash it is sent when the page is opened next.
 */
export class Sender {
	isBusy = $state(false);
	/** What the change is called that the server does not answer to. */
	waiting: string | undefined = $state();
	private readonly inTurn = turns();
	private readonly kept: Keeping<Order>;

	constructor(
		/** Names the history in the browser's store. */
		of: string,
		/** What is done with each answer before the next change is worked out. */
		private readonly take: (answer: unknown) => unknown
	) {
		this.kept = new Keeping(`heptarch:${of}`);
	}

	/**
	 * Sends what `make` gives once its turn has come; where that is undefined there is nothing to do. Returns whether it was
	 * saved; why the server refused it is said.
	 */
	send(make: () => Order | undefined): Promise<boolean> {
		return this.inTurn(async () => {
			const order = make();
			return order ? this.deliver(order) : false;
		});
	}

	/** Sends what was kept when the browser went down, if nothing was changed since: `version` is what stands now. */
	async resume(version: number): Promise<void> {
		const order = this.kept.get();
		if (!order) return;
		if (order.body.version !== version) this.kept.set(undefined);
		else if (await this.inTurn(() => this.deliver(order)))
			notify(`Saved now, as the server answers again: ${order.label}. Ctrl+Z takes it back.`);
	}

	private async deliver(order: Order): Promise<boolean> {
		this.isBusy = true;
		this.kept.set(order);
		try {
			const answer = await this.answerTo(order);
			this.kept.set(undefined);
			await this.take(answer);
			return true;
		} catch (error) {
			this.kept.set(undefined);
			notifyError(error);
			return false;
		} finally {
			this.waiting = undefined;
			this.isBusy = false;
		}
	}
	private async answerTo({ label, method, path, body }: Order): Promise<unknown> {
		for (;;)
			try {
				return await callRoute(method, path, body);
			} catch (error) {
				if (!(error instanceof RequestError && error.body.code === 'offline')) throw error;
				this.waiting = label;
				await new Promise((resolve) => setTimeout(resolve, AGAIN_AFTER));
			}
	}
}
