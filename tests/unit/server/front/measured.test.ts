import assert from 'node:assert/strict';
import { spawn } from 'node:child_process';
import { describe, it } from 'node:test';
import { Measured, type ProcessLimits } from '../../../../src/lib/server/front/measured.ts';

const MB = 2 ** 20;

describe('a process that is measured', () => {
	/** Runs a program as a job, and says why it was ended, if it was. */
	async function excessOf(program: string, limits: ProcessLimits) {
		const child = spawn(process.execPath, ['-e', program], { stdio: 'ignore' });
		const measured = new Measured(child, limits);
		measured.begin();
		const watch = setInterval(() => measured.watch(), 20);
		await new Promise((resolve) => child.once('exit', resolve));
		clearInterval(watch);
		return { excess: measured.excess, signal: child.signalCode };
	}

	it('is ended where its job takes more memory, in buffers too', async () => {
		const grow = 'const all = []; setInterval(() => all.push(Buffer.alloc(16 * 2 ** 20, 1)), 5)';
		assert.deepEqual(await excessOf(grow, { memory: 250 * MB, seconds: 60 }), { excess: 'memory', signal: 'SIGKILL' });
	});

	it('is ended where its job computes for longer, and cannot be asked to stop', async () => {
		const never = 'for (;;);';
		assert.deepEqual(await excessOf(never, { memory: 1_000 * MB, seconds: 0.3 }), {
			excess: 'time',
			signal: 'SIGKILL'
		});
	});

	it('is left alone where it waits, and where its job stays within', async () => {
		const waits = 'setTimeout(() => undefined, 400)';
		assert.deepEqual(await excessOf(waits, { memory: 1_000 * MB, seconds: 5 }), { excess: undefined, signal: null });
	});
});
