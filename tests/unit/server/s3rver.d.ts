declare module 's3rver' {
	/** An object store on loopback, for tests. */
	export default class S3rver {
		constructor(options: {
			address: string;
			port: number;
			silent: boolean;
			directory: string;
			configureBuckets: { name: string; configs: unknown[] }[];
		});
		run(): Promise<{ port: number }>;
		close(): Promise<void>;
	}
}
