// node launcher/migrateCommand.mjs URL FOLDER: brings a database to the newest migration of a folder, for the tests.
import pg from 'pg';
import { bringToNewest } from './migrate.mjs';

const [url, folder] = process.argv.slice(2);
const client = new pg.Client({ connectionString: url });
await client.connect();
await bringToNewest(client, folder).finally(() => client.end());
