/** Does one thing after the other: what is asked for while another is on its way waits until that is done or has failed. */
export function turns(): <T>(work: () => Promise<T>) => Promise<T> {
	let last: Promise<unknown> = Promise.resolve();
	return (work) => {
		const next = last.then(work);
		last = next.catch(() => undefined);
		return next;
	};
}
