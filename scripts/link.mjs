// npm run link [ADDRESS]: a link that lets a keeper in, once, for the installation in DATABASE_URL or that of this checkout.
import { atDatabase } from './at-database.mjs';

await atDatabase('link.ts');
