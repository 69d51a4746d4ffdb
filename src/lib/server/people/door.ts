import { CamelCasePlugin, Kysely, type ColumnType, type Generated } from 'kysely';
import type { Role } from '../../workbench/roles.ts';
import { databaseUrl, poolOf } from '../database.ts';
import { RoleDialect } from './role-dialect.ts';

type When = ColumnType<Date, Date | undefined, Date>;
type WhenOrNever = ColumnType<Date | null, Date | null | undefined, Date | null>;

/** What belongs to the installation: who there is, and how they come in. What is not here, better-auth alone reads. */
export interface DoorTables {
	people: {
		id: Generated<string>;
		name: string;
		/** Made up where nobody gave one: people sign in by their name. */
		email: string;
		username: string | null;
		displayUsername: string | null;
		twoFactorEnabled: Generated<boolean>;
		createdAt: When;
	};
	sessions: {
		id: string;
		token: string;
		userId: string;
		/** The house that the person works in. */
		houseId: string | null;
		ipAddress: string | null;
		userAgent: string | null;
		expiresAt: Date;
		createdAt: When;
		updatedAt: When;
	};
	accounts: {
		id: string;
		userId: string;
		providerId: string;
		accountId: string;
		password: string | null;
		updatedAt: When;
	};
	secondFactors: { id: string; userId: string };
	members: { houseId: string; personId: string; role: Role; since: When; leftAt: WhenOrNever };
	links: {
		/** SHA-256 of what the link says, in hex. */
		hash: string;
		kind: LinkKind;
		houseId: string | null;
		personId: string | null;
		role: Role | null;
		name: string | null;
		madeBy: string | null;
		createdAt: When;
		expiresAt: Date;
		usedAt: WhenOrNever;
	};
	attempts: { id: Generated<string>; of: string; at: When };
	installation: { secret: string; closedAt: WhenOrNever };
	/** What programs show; their hashes, and what they may. */
	tokens: {
		id: string;
		houseId: string;
		name: string;
		hash: string;
		role: Role;
		expiresAt: Date;
		usedAt: WhenOrNever;
		endedAt: WhenOrNever;
	};
	houses: { id: Generated<string>; name: string; inks: string; typeRoles: string; createdAt: When };
	houseLog: { houseId: string; at: When; personId: string | null; kind: string; words: string };
}

/** What a one-time link is for: to come into a house, to set a new password, or to come in without one. */
export type LinkKind = 'invitation' | 'password' | 'entry';

export type Door = Kysely<DoorTables>;

/** Connects to PostgreSQL for who comes in at the door, whatever the house. Does not throw before the first query. */
export const connectDoor = (url: string): Door =>
	new Kysely<DoorTables>({ dialect: new RoleDialect(poolOf(url), 'heptarch_door'), plugins: [new CamelCasePlugin()] });

let shared: Door | undefined;
/** The application's own connection at the door, by DATABASE_URL. */
export const door = (): Door => (shared ??= connectDoor(databaseUrl()));
