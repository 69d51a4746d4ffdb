/** Jobs that wait, taken in turns among the people who wait for them: many of one person do not hold up another's one. */
export class Waiting<J extends { readonly person: string }> {
	/** Each person's jobs, oldest first; who was served longest ago comes first. */
	private readonly lines = new Map<string, J[]>();

	get size(): number {
		return [...this.lines.values()].reduce((sum, line) => sum + line.length, 0);
	}

	add(job: J): void {
		const line = this.lines.get(job.person);
		if (line) line.push(job);
		else this.lines.set(job.person, [job]);
	}

	/** Takes a job out that nobody waits for any more; false where it does not wait. */
	remove(job: J): boolean {
		const line = this.lines.get(job.person) ?? [];
		const at = line.indexOf(job);
		if (at < 0) return false;
		line.splice(at, 1);
		if (!line.length) this.lines.delete(job.person);
		return true;
	}

	/**
	 * Takes the job whose turn it is: of the person for whom least is at work, and among those of who was served longest ago,
	 * the oldest that may begin.
	 */
	next(atWork: (person: string) => number, may: (job: J) => boolean): J | undefined {
		let best: J | undefined;
		for (const line of this.lines.values()) {
			const job = line.find(may);
			if (job && (!best || atWork(job.person) < atWork(best.person))) best = job;
		}
		if (!best) return undefined;
		this.remove(best);
		const rest = this.lines.get(best.person);
		// To the end of the round.
		if (rest && this.lines.delete(best.person)) this.lines.set(best.person, rest);
		return best;
	}

	/** Takes all of them out. */
	drain(): J[] {
		const all = [...this.lines.values()].flat();
		this.lines.clear();
		return all;
	}
}
