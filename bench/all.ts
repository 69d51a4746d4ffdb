import { benchCsv } from './csv.ts';
import { benchDocx } from './docx.ts';
import { benchResolve } from './resolve.ts';

await benchResolve();
await benchDocx();
await benchCsv();
