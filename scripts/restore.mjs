// npm run restore -- FILE: brings a backup into the installation in DATABASE_URL, or into that of this checkout.
import { atDatabase } from './at-database.mjs';

await atDatabase('restore.ts', { isOfFile: true });
