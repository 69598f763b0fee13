import path from 'node:path';
import { migrate } from './migrate';

const databaseUrl = process.env.DATABASE_URL;
if (!databaseUrl) throw new Error('DATABASE_URL: expected the address of a PostgreSQL database');
await migrate(databaseUrl, path.resolve('db/migrations'));
