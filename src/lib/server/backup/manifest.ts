import { createHash } from 'node:crypto';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { InputError } from '../../core/errors.ts';
import { once } from '../../core/once.ts';
import { closed, UUID } from '../../workbench/stored.ts';

/** One entry of a backup. */
export interface Entry {
	readonly path: string;
	/** In bytes. */
	readonly size: number;
	/** SHA-256, in hex. */
	readonly sha256: string;
}

/** What a backup says of itself. */
export interface Manifest {
	readonly format: 'heptarch-backup';
	readonly version: 1;
	/** ISO 8601. */
	readonly made: string;
	/** The last migration of the database that it was made of. */
	readonly schema: string;
	/** Whether passwords and second factors, as they are kept, are in it. */
	readonly secrets: boolean;
	readonly houses: readonly {
		readonly id: string;
		readonly name: string;
		/** Where in the backup it is. */
		readonly folder: string;
		/** How many rows of each table. */
		readonly rows: Readonly<Record<string, number>>;
	}[];
	readonly people: number;
	readonly entries: readonly Entry[];
}

const count = { type: 'integer', minimum: 0 };
const text = { type: 'string', maxLength: 500 };
const SCHEMA = closed(
	{
		format: { const: 'heptarch-backup' },
		version: { const: 1 },
		made: text,
		schema: text,
		secrets: { type: 'boolean' },
		houses: {
			type: 'array',
			minItems: 1,
			items: closed(
				{
					id: UUID,
					name: text,
					folder: { type: 'string', pattern: '^houses/\\d{1,6}$' },
					rows: { type: 'object', additionalProperties: count }
				},
				['id', 'name', 'folder', 'rows']
			)
		},
		people: count,
		entries: {
			type: 'array',
			items: closed(
				{
					path: { type: 'string', maxLength: 1_000 },
					size: count,
					sha256: { type: 'string', pattern: '^[0-9a-f]{64}$' }
				},
				['path', 'size', 'sha256']
			)
		}
	},
	['format', 'version', 'made', 'schema', 'secrets', 'houses', 'people', 'entries']
);
const validator = once(() => new Ajv2020({ allowUnionTypes: true }).compile(SCHEMA));

/** Reads what a backup says of itself. Throws InputError for one of something else, or of a newer Heptarch. */
export function readManifest(source: string, name: string): Manifest {
	let value: unknown;
	try {
		value = JSON.parse(source);
	} catch {
		throw new InputError('backup', `“${name}” is no backup of Heptarch: its manifest.json cannot be read.`, name);
	}
	const { format, version } = (value ?? {}) as { format?: unknown; version?: unknown };
	if (format !== 'heptarch-backup') throw new InputError('backup', `“${name}” is no backup of Heptarch.`, name);
	if (typeof version === 'number' && version > 1)
		throw new InputError('backup', `“${name}” was made by a newer Heptarch. Bring this one up to date first.`, name);
	const validate = validator();
	if (!validate(value)) {
		const { instancePath, message } = validate.errors![0]!;
		throw new InputError(
			'backup',
			`“${name}” is damaged: its manifest is not as it should be at ${instancePath || '/'} (${message}).`,
			name
		);
	}
	return value as unknown as Manifest;
}

/** Adds up what is written, to say of it how much it is and what. */
export class Tally {
	private readonly hash = createHash('sha256');
	size = 0;
	add(piece: Uint8Array): Uint8Array {
		this.hash.update(piece);
		this.size += piece.length;
		return piece;
	}
	entry(path: string): Entry {
		return { path, size: this.size, sha256: this.hash.digest('hex') };
	}
}
