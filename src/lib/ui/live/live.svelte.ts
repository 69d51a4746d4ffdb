import { invalidate } from '$app/navigation';
import type { Arrived, LiveEvents, ListKind, Other, Thing } from '$lib/workbench/live.ts';

/** Pages that list what others change, and by what they load it. Nothing else is loaded anew beside somebody's own work. */
const LISTING: readonly (readonly [page: RegExp, of: readonly ListKind[], loads: string])[] = [
	[/^\/$/, ['documents', 'styles', 'editions', 'runs'], 'heptarch:desk'],
	[/^\/documents$/, ['documents'], 'heptarch:documents'],
	[/^\/stylebook$/, ['styles', 'editions'], 'heptarch:styles'],
	[/^\/stylebook\/[^/]+\/editions$/, ['styles', 'editions'], 'heptarch:editions'],
	[/^\/starters$/, ['starters'], 'heptarch:starters'],
	[/^\/runs$/, ['runs'], 'heptarch:runs']
];

/**
 * What happens elsewhere in the house, as long as this window is looked at: browsers give few connections to one address, so
 * one that is out of sight gives its own back, and looks at what it missed when it is seen again.
 */
class Live {
	/** Who else is on what this window shows. */
	others: readonly Other[] = $state.raw([]);
	private thing: Thing = '';
	private source: EventSource | undefined;
	private readonly heard = new Set<(arrived: Arrived) => void>();

	/** Calls whenever what is shown stands at another version, whoever brought it there; until what it gives back is called. */
	whenArrived(hear: (arrived: Arrived) => void): () => void {
		this.heard.add(hear);
		return () => this.heard.delete(hear);
	}

	/** From now on this window shows a thing; gives back what ends that. */
	watch(thing: Thing): () => void {
		this.thing = thing;
		const look = () => (document.visibilityState === 'visible' ? this.open() : this.close());
		document.addEventListener('visibilitychange', look);
		// The page and what it loads come first.
		const timer = setTimeout(look, 300);
		return () => {
			clearTimeout(timer);
			document.removeEventListener('visibilitychange', look);
			this.close();
		};
	}

	private open(): void {
		if (this.source) return;
		const source = new EventSource(`/api/live?on=${this.thing}`);
		this.source = source;
		const hear = <E extends keyof LiveEvents>(event: E, take: (data: LiveEvents[E]) => void) =>
			source.addEventListener(event, ({ data }) => take(JSON.parse(data as string) as LiveEvents[E]));
		hear('others', (others) => (this.others = others));
		hear('arrived', (arrived) => {
			for (const one of this.heard) one(arrived);
		});
		hear('lists', (kinds) => {
			for (const [page, of, loads] of LISTING)
				if (page.test(location.pathname) && of.some((kind) => kinds.includes(kind))) void invalidate(loads);
		});
	}
	private close(): void {
		this.source?.close();
		this.source = undefined;
		this.others = [];
	}
}

export const live = new Live();

/** What somebody did, as it is told to somebody who looks at it. */
export const arrivedWords = ({ by, label }: Arrived): string | undefined =>
	by === null || label === null ? undefined : `${by}: ${label}`;
