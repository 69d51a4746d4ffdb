import { benchCsv } from './csv.ts';
import { benchDocx } from './docx.ts';
import { benchDrawing } from './drawing.ts';
import { benchFigures } from './figures.ts';
import { benchResolve } from './resolve.ts';

await benchResolve();
await benchDocx();
await benchCsv();
await benchDrawing();
await benchFigures();
