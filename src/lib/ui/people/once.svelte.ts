import { RequestError } from '$lib/ui/api.ts';

/** Something that a form asks for, once at a time, and what was said against it. */
export class Once {
	isBusy = $state(false);
	fault = $state('');

	async do(work: () => Promise<unknown>): Promise<boolean> {
		if (this.isBusy) return false;
		this.isBusy = true;
		this.fault = '';
		try {
			await work();
			return true;
		} catch (error) {
			if (!(error instanceof RequestError)) throw error;
			this.fault = error.message;
			return false;
		} finally {
			this.isBusy = false;
		}
	}
}
