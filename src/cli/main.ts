import { parseArgs } from 'node:util';
import { InputError } from '../lib/core/errors.ts';
import { applyCommand } from './apply.ts';
import { censusCommand } from './census.ts';
import { checkCommand, USAGE as CHECK_USAGE } from './check.ts';
import type { Arguments, ExitCode } from './command.ts';
import { figuresCommand, USAGE as FIGURES_USAGE } from './figures.ts';
import { liftCommand } from './lift.ts';
import { pairCommand, USAGE as PAIR_USAGE } from './pair.ts';
import { readCommand } from './read.ts';
import { resolveCommand } from './resolve.ts';
import { scheduleCommand } from './schedule.ts';
import { atServer, SERVER_USAGE } from './server.ts';

interface Command {
	readonly usage: string;
	readonly does: string;
	readonly options: Readonly<Record<string, { type: 'string' | 'boolean' }>>;
	readonly run: (args: Arguments) => Promise<ExitCode>;
}

const COMMANDS: Record<string, Command> = {
	read: {
		usage: 'heptarch read FILE [--json]',
		does: 'lists the tables of a document: place, size, roles of rows, kinds of columns, reasons, worn style',
		options: { json: { type: 'boolean' } },
		run: readCommand
	},
	apply: {
		usage:
			'heptarch apply FILE --style STYLE.json [--tables 1,3-5] [--parts=-rowBand,+total] [--carry text,fill,…] [--as living|living-only|direct] --out OUT [--json]',
		does: 'gives a style to tables and writes the file, with an account and the read-back',
		options: {
			style: { type: 'string' },
			tables: { type: 'string' },
			parts: { type: 'string' },
			carry: { type: 'string' },
			as: { type: 'string' },
			out: { type: 'string' },
			json: { type: 'boolean' }
		},
		run: applyCommand
	},
	lift: {
		usage: 'heptarch lift FILE --table N --out STYLE.json [--json]',
		does: 'makes a style from a table that is already formatted, with how much it reproduces and what is left over',
		options: { table: { type: 'string' }, out: { type: 'string' }, json: { type: 'boolean' } },
		run: liftCommand
	},
	census: {
		usage: 'heptarch census FILE… [--json]',
		does: 'groups the tables of some files by how they look',
		options: { json: { type: 'boolean' } },
		run: censusCommand
	},
	check: {
		usage: CHECK_USAGE,
		does: 'lists totals that are off, text that is hard to read, missing headers, figures that do not line up; or what a policy does not let pass',
		options: { policy: { type: 'string' }, as: { type: 'string' }, json: { type: 'boolean' } },
		run: checkCommand
	},
	pair: {
		usage: PAIR_USAGE,
		does: 'finds the tables of a file in a newer one, with rows added, gone and changed',
		options: { json: { type: 'boolean' } },
		run: pairCommand
	},
	figures: {
		usage: FIGURES_USAGE,
		does: 'lists what cells amount to, exactly and in what, and which typed sums are off',
		options: { locale: { type: 'string' }, json: { type: 'boolean' } },
		run: figuresCommand
	},
	schedule: {
		usage: 'heptarch schedule DRAWING.svg --spec SPEC.json [--style STYLE.json] --out OUT.svg [--json]',
		does: 'makes a schedule in a drawing, or reads the one of the same title again, with rows added, gone, changed',
		options: {
			spec: { type: 'string' },
			style: { type: 'string' },
			out: { type: 'string' },
			json: { type: 'boolean' }
		},
		run: scheduleCommand
	},
	resolve: {
		usage: 'heptarch resolve TABLE.json --style STYLE.json [--trace R,C]',
		does: 'decides every cell and edge of a table by a style, or explains one cell',
		options: { style: { type: 'string' }, trace: { type: 'string' }, json: { type: 'boolean' } },
		run: resolveCommand
	}
};

function usage(): string {
	const lines = Object.values(COMMANDS).map(({ usage, does }) => `  ${usage}\n      ${does}`);
	return `Heptarch, table styles on the command line.\n\n${lines.join('\n')}\n\n${SERVER_USAGE}\n\nIn words, tables, rows and columns are numbered from 1; in --trace and in JSON, rows and columns count from 0.\nExit code: 0 done, 1 findings or differences, 2 bad input or usage.`;
}

/** Runs one command. Errors about the input go to standard error in plain words. */
export async function main(argv: readonly string[]): Promise<ExitCode> {
	const [name, ...rest] = argv;
	if (name === undefined || name === 'help' || name === '--help' || name === '-h') {
		console.log(usage());
		return name === undefined ? 2 : 0;
	}
	const command = COMMANDS[name];
	if (!command) {
		console.error(
			`There is no command “${name}”. There are: ${Object.keys(COMMANDS).join(', ')}. “heptarch help” says what they do.`
		);
		return 2;
	}
	if (rest.includes('--help') || rest.includes('-h')) {
		console.log(`${command.usage}\n    ${command.does}`);
		return 0;
	}
	try {
		const parsed = parseArgs({
			args: rest,
			options: { ...command.options, server: { type: 'string' } },
			allowPositionals: true,
			strict: true
		});
		const args = { positionals: parsed.positionals, values: parsed.values as Arguments['values'] };
		const { server } = args.values;
		return typeof server === 'string' ? await atServer(name, server, args) : await command.run(args);
	} catch (error) {
		if (error instanceof InputError) {
			console.error(error.message);
			return 2;
		}
		const { code, message } = error as NodeJS.ErrnoException;
		if (typeof code === 'string' && code.startsWith('ERR_PARSE_ARGS')) {
			console.error(`${message}\nUsage: ${command.usage}`);
			return 2;
		}
		throw error;
	}
}
