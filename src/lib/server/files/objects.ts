import { once } from '../../core/once.ts';

/** Where contents of files are kept outside the database, each under a name of its own. */
export interface ObjectStore {
	put(name: string, bytes: Uint8Array): Promise<void>;
	/** Undefined where it is not there. */
	get(name: string): Promise<Uint8Array<ArrayBuffer> | undefined>;
	remove(names: readonly string[]): Promise<void>;
	/** Names of all that was put there before a moment, some at a time. */
	before(moment: Date): AsyncIterable<string[]>;
}

/** Thrown where the store does not answer, or refuses: nobody's fault who asked. */
export class StoreError extends Error {
	constructor(cause: unknown) {
		super(
			'The store of files does not answer. Nothing was changed; try again in a moment, or tell the operator of this house.',
			{ cause }
		);
	}
}

/**
 * A bucket, and what the names in it begin with, of `s3://bucket/prefix`. Throws Error for anything else.
 * @param address what the environment's `HEPTARCH_FILES` says
 */
export function bucketOf(address: string): { bucket: string; prefix: string } {
	const [, bucket, rest] = /^s3:\/\/([a-z\d][a-z\d.-]{1,61}[a-z\d])(?:\/(.*))?$/.exec(address) ?? [];
	if (!bucket) throw new Error(`HEPTARCH_FILES is “${address}”; it has to be s3://bucket or s3://bucket/prefix.`);
	const prefix = rest?.replace(/\/+$/, '');
	return { bucket, prefix: prefix ? `${prefix}/` : '' };
}

/** As many as one request may take out (Amazon S3 API, DeleteObjects). */
const AT_ONCE = 1_000;

/**
 * A store that speaks the S3 API. Region, keys and address come from the variables that its library knows (`AWS_REGION`,
 * `AWS_ACCESS_KEY_ID`, `AWS_SECRET_ACCESS_KEY`, `AWS_ENDPOINT_URL_S3`). Its methods throw StoreError.
 */
export async function openBucket(address: string): Promise<ObjectStore> {
	const { bucket: Bucket, prefix } = bucketOf(address);
	const { S3Client, PutObjectCommand, GetObjectCommand, DeleteObjectsCommand, NoSuchKey, paginateListObjectsV2 } =
		await import('@aws-sdk/client-s3');
	const client = new S3Client({
		// A store at an address of its own has its buckets in the path, and may not know the newest checksums.
		forcePathStyle: !!process.env.AWS_ENDPOINT_URL_S3,
		requestChecksumCalculation: 'WHEN_REQUIRED',
		responseChecksumValidation: 'WHEN_REQUIRED',
		maxAttempts: 3
	});
	const passing = (error: unknown) => {
		throw new StoreError(error);
	};
	return {
		async put(name, Body) {
			await client.send(new PutObjectCommand({ Bucket, Key: prefix + name, Body })).catch(passing);
		},
		async get(name) {
			try {
				const { Body } = await client.send(new GetObjectCommand({ Bucket, Key: prefix + name }));
				return new Uint8Array(await Body!.transformToByteArray());
			} catch (error) {
				return error instanceof NoSuchKey ? undefined : passing(error);
			}
		},
		async remove(names) {
			for (let i = 0; i < names.length; i += AT_ONCE) {
				const Objects = names.slice(i, i + AT_ONCE).map((name) => ({ Key: prefix + name }));
				await client.send(new DeleteObjectsCommand({ Bucket, Delete: { Objects, Quiet: true } })).catch(passing);
			}
		},
		async *before(moment) {
			try {
				for await (const { Contents = [] } of paginateListObjectsV2({ client }, { Bucket, Prefix: prefix }))
					yield Contents.filter(({ LastModified }) => LastModified! < moment).map(({ Key }) =>
						Key!.slice(prefix.length)
					);
			} catch (error) {
				passing(error);
			}
		}
	};
}

const configured = once(() => {
	const address = process.env.HEPTARCH_FILES;
	return address ? openBucket(address) : undefined;
});

/** The store that the environment names by `HEPTARCH_FILES`; undefined where files are kept in the database. */
export const objectStore = async (): Promise<ObjectStore | undefined> => configured();
