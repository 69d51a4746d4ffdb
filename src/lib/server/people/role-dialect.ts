import {
	CompiledQuery,
	PostgresDialect,
	PostgresDriver,
	type DatabaseConnection,
	type Driver,
	type QueryResult,
	type TransactionSettings
} from 'kysely';
import type pg from 'pg';
import type { Acting } from './acting.ts';

/**
 * PostgreSQL's roles: for what is done in a house, and for who comes in at the door. They own no table, so row-level security
 * holds for them.
 */
type DatabaseRole = 'heptarch_house' | 'heptarch_door';
/** Ids are written into a statement, so nothing else may be in them. */
const ID = /^[\w-]{1,64}$/;

/**
 * The one place at which a transaction is set to a house and a person. It is set for that transaction alone (PostgreSQL,
 * *set_config*), so a connection that is used again carries nothing over, and a pooler may share it.
 */
function setting(role: DatabaseRole, who: Acting | undefined): string {
	const { house = '', person = null } = who ?? {};
	for (const id of [house, person ?? ''])
		if (id && !ID.test(id)) throw new Error('This is no id of a house or a person.');
	return `select set_config('role', '${role}', true), set_config('heptarch.house', '${house}', true),
		set_config('heptarch.person', '${person ?? ''}', true)`;
}

type Connection = Parameters<PostgresDriver['rollbackTransaction']>[0];

/** A connection as it is taken by somebody: each statement outside of a transaction is one of its own. */
class RoleConnection implements DatabaseConnection {
	isOpen = false;
	constructor(
		private readonly driver: PostgresDriver,
		readonly inner: Connection,
		readonly setting: string
	) {}

	async executeQuery<R>(query: CompiledQuery): Promise<QueryResult<R>> {
		if (this.isOpen) return this.inner.executeQuery<R>(query);
		await this.inner.executeQuery(CompiledQuery.raw(`begin; ${this.setting}`));
		let result: QueryResult<R>;
		try {
			result = await this.inner.executeQuery<R>(query);
		} catch (error) {
			// Where the connection is lost, there is nothing to take back; what is told of is why.
			await this.driver.rollbackTransaction(this.inner).catch(() => undefined);
			throw error;
		}
		await this.driver.commitTransaction(this.inner);
		return result;
	}

	streamQuery<R>(query: CompiledQuery, size: number): AsyncIterableIterator<QueryResult<R>> {
		if (!this.isOpen) throw new Error('What is streamed is streamed in a transaction.');
		return this.inner.streamQuery<R>(query, size);
	}
}

class RoleDriver implements Driver {
	constructor(
		private readonly driver: PostgresDriver,
		private readonly role: DatabaseRole,
		private readonly who: () => Acting | undefined
	) {}
	init = () => this.driver.init();
	destroy = () => this.driver.destroy();

	async acquireConnection(): Promise<RoleConnection> {
		// Asked before anything is waited for: it is whoever asks for the connection that counts.
		const set = setting(this.role, this.who());
		return new RoleConnection(this.driver, (await this.driver.acquireConnection()) as Connection, set);
	}
	releaseConnection = ({ inner }: RoleConnection) => this.driver.releaseConnection(inner);

	async beginTransaction(connection: RoleConnection, settings: TransactionSettings): Promise<void> {
		await this.driver.beginTransaction(connection.inner, settings);
		connection.isOpen = true;
		await connection.inner.executeQuery(CompiledQuery.raw(connection.setting));
	}
	async commitTransaction(connection: RoleConnection): Promise<void> {
		await this.driver.commitTransaction(connection.inner);
		connection.isOpen = false;
	}
	async rollbackTransaction(connection: RoleConnection): Promise<void> {
		await this.driver.rollbackTransaction(connection.inner);
		connection.isOpen = false;
	}
	savepoint: NonNullable<Driver['savepoint']> = ({ inner }: RoleConnection, ...rest) =>
		this.driver.savepoint(inner, ...rest);
	rollbackToSavepoint: NonNullable<Driver['rollbackToSavepoint']> = ({ inner }: RoleConnection, ...rest) =>
		this.driver.rollbackToSavepoint(inner, ...rest);
	releaseSavepoint: NonNullable<Driver['releaseSavepoint']> = ({ inner }: RoleConnection, ...rest) =>
		this.driver.releaseSavepoint(inner, ...rest);
}

/** PostgreSQL as a role asks it, for whoever acts at that moment. */
export class RoleDialect extends PostgresDialect {
	constructor(
		private readonly pool: pg.Pool,
		private readonly role: DatabaseRole,
		private readonly who: () => Acting | undefined = () => undefined
	) {
		super({ pool });
	}
	override createDriver(): Driver {
		return new RoleDriver(new PostgresDriver({ pool: this.pool }), this.role, this.who);
	}
}
