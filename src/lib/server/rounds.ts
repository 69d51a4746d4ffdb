/** Does something again and again, with a rest after each time, until it is stopped; what goes wrong is told of once, and tried again. */
export class Rounds {
	private isStopped = false;
	private at: Promise<void> = Promise.resolve();
	private timer: ReturnType<typeof setTimeout> | undefined;
	private said = '';

	constructor(
		private readonly every: number,
		private readonly onerror: (error: Error) => void
	) {}

	goesOn = (): boolean => !this.isStopped;

	start(work: () => Promise<unknown>): void {
		if (this.isStopped) return;
		this.at = work()
			.then(() => void (this.said = ''))
			.catch((error: Error) => {
				if (error.message !== this.said) this.onerror(error);
				this.said = error.message;
			})
			.then(() => {
				this.timer = setTimeout(() => this.start(work), this.every);
				this.timer.unref();
			});
	}
	/** Ends when what is being done is done. */
	async stop(): Promise<void> {
		this.isStopped = true;
		clearTimeout(this.timer);
		await this.at;
	}
}
