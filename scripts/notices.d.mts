import type { Plugin } from 'vite';

export declare function needed(root: string): Map<string, { name: string; version: string; license?: string }>;
export declare function notices(root: string): string;
export declare function noticesPlugin(): Plugin;
