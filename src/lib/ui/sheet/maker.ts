import type { ScheduleDefinition } from '$lib/core/schedule/definition.ts';
import type { ScheduleRows, SheetFacts } from '$lib/core/schedule/rows.ts';
import type { ShownObjects } from '$lib/formats/svg/shown.ts';
import ScheduleWorker from '$lib/workers/schedules.ts?worker';
import type { RowsMade, Order } from '$lib/workers/schedules.ts';

/** Makes schedules in a worker. */
export class Maker {
	private worker: Worker | undefined;
	private next = 0;
	private readonly waiting = new Map<number, (answer: RowsMade) => void>();
	/** Drawings that the worker knows the objects of. */
	private readonly known = new Set<string>();

	private tell(order: Order): void {
		if (!this.worker) {
			this.worker = new ScheduleWorker();
			this.worker.onmessage = ({ data }: MessageEvent<RowsMade>) => {
				this.waiting.get(data.id)?.(data);
				this.waiting.delete(data.id);
			};
		}
		this.worker.postMessage(order);
	}

	/** The objects of a drawing by its id; '' is the one that is open. */
	learn(drawing: string, name: string, objects: ShownObjects): void {
		this.known.add(drawing);
		this.tell({ drawing, name, objects });
	}
	knows(drawing: string): boolean {
		return this.known.has(drawing);
	}

	/** The rows of a schedule. Throws Error with the sentence that says why there are none. */
	rows(definition: ScheduleDefinition, others: readonly string[], facts: SheetFacts): Promise<ScheduleRows> {
		const id = this.next++;
		return new Promise((resolve, reject) => {
			this.waiting.set(id, (answer) => ('rows' in answer ? resolve(answer.rows) : reject(new Error(answer.problem))));
			this.tell({ id, definition, with: others, facts });
		});
	}

	end(): void {
		this.worker?.terminate();
	}
}
