// npm run backup -- FILE: everything of the installation in DATABASE_URL, or of that of this checkout, as one zip.
import { atDatabase } from './at-database.mjs';

await atDatabase('backup.ts', { isOfFile: true });
