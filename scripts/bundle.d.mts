export declare function bundle(entry: string, sources: readonly string[]): Promise<string>;
