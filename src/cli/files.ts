import { readFile, rename, rm, writeFile } from 'node:fs/promises';
import { InputError } from '../lib/core/errors.ts';
import { checkStyle } from '../lib/core/style/validate.ts';
import type { Style } from '../lib/core/style/types.ts';
import type { Arguments } from './command.ts';

const REASONS: Record<string, string> = {
	ENOENT: 'there is no such file',
	EISDIR: 'it is a folder',
	EACCES: 'you may not read or write it',
	ENOSPC: 'the disk is full',
	ENOTDIR: 'part of its path is not a folder'
};

function fileError(path: string, error: unknown): InputError {
	const { code, message } = error as NodeJS.ErrnoException;
	return new InputError('file', `“${path}”: ${REASONS[code ?? ''] ?? message}.`, path);
}

export async function readBytes(path: string): Promise<Uint8Array<ArrayBuffer>> {
	try {
		return new Uint8Array(await readFile(path));
	} catch (error) {
		throw fileError(path, error);
	}
}

/** Writes a file whole or not at all. */
export async function writeWhole(path: string, bytes: Uint8Array): Promise<void> {
	const draft = `${path}.${process.pid}.part`;
	try {
		await writeFile(draft, bytes);
		await rename(draft, path);
	} catch (error) {
		await rm(draft, { force: true });
		throw fileError(path, error);
	}
}

export async function readJson(path: string): Promise<unknown> {
	const text = new TextDecoder().decode(await readBytes(path)).replace(/^\uFEFF/, '');
	try {
		return JSON.parse(text);
	} catch (error) {
		throw new InputError('json', `“${path}” is not JSON: ${(error as Error).message}.`, path);
	}
}

export async function readStyle(path: string): Promise<Style> {
	try {
		return checkStyle(await readJson(path));
	} catch (error) {
		if (error instanceof InputError && error.code === 'style')
			throw new InputError('style', `“${path}”: ${error.message}`, error.where);
		throw error;
	}
}

/** The one file that a command works on. */
export function onlyFile({ positionals }: Arguments, usage: string): string {
	if (positionals.length !== 1) throw new InputError('usage', `Name one file.\nUsage: ${usage}`);
	return positionals[0]!;
}

export function required({ values }: Arguments, name: string, usage: string): string {
	const value = values[name];
	if (typeof value !== 'string' || value === '')
		throw new InputError('usage', `--${name} is missing.\nUsage: ${usage}`);
	return value;
}
