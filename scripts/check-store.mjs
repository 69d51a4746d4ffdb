// npm run check-store: whether every file of the house in DATABASE_URL, or of this checkout's own cluster, is there and whole.
import { atDatabase } from './at-database.mjs';

await atDatabase('check-store.ts');
