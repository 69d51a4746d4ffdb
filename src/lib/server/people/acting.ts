import { AsyncLocalStorage } from 'node:async_hooks';

/** In which house something is done, and by whom; null for what is done by itself. */
export interface Acting {
	readonly house: string;
	readonly person: string | null;
}

const stored = new AsyncLocalStorage<Acting>();

/** Who acts now; undefined outside of any house. */
export const acting = (): Acting | undefined => stored.getStore();

/** Does something in a house: whatever it asks of the database is asked of that house. */
export const actAs = <T>(who: Acting, work: () => T): T => stored.run(who, work);

/** What something of this house is called in a store of this process, which is all houses': none finds what is another's. */
export const ofHouse = (name: string): string => `${acting()?.house ?? ''} ${name}`;
