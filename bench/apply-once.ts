import { FIRST_HOUSE } from '../src/lib/core/house.ts';
import { readDocx } from '../src/lib/formats/docx/read.ts';
import { writeDocx } from '../src/lib/formats/docx/write.ts';
import { readFileSync } from 'node:fs';
import { DEMO_STYLES } from '../demo/styles/index.ts';

/** Applies a style to every table of the DOCX named, once: for measuring how small a heap that can be done in. */
const bytes = new Uint8Array(readFileSync(process.argv[2]!));
const style = DEMO_STYLES.find(({ name }) => name === 'Season Ledger')!;
const document = await readDocx(bytes);
const jobs = document.tables.map(({ index, table }) => ({ index, table, style }));
const find = (name: string) => DEMO_STYLES.find((other) => other.name === name);
await writeDocx(document, jobs, { house: FIRST_HOUSE, find, readBack: false });
