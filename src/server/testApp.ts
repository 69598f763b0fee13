import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import type { Express } from 'express';
import pg from 'pg';
import { pino } from 'pino';
import { createApp } from './app';
import { connect, type Database } from './db';
import { jobsHere } from './jobs/jobs';

const runFile = promisify(execFile);

/** Brings a database to the newest schema as the command does: the migration package is a module that Jest cannot load. */
export async function migrateByCommand(url: string): Promise<void> {
  const env = { ...process.env, DATABASE_URL: url };
  await runFile(process.execPath, ['--import', 'tsx', 'src/server/migrateCommand.ts'], { env });
}

/** An app on a database of its own inside the test run's throw-away cluster. */
export async function testApp(name: string): Promise<{
  app: Express;
  db: Database;
  copiesFolder: string;
  close: () => Promise<void>;
}> {
  const url = await newestDatabase(name);
  const db = connect(url, () => undefined);
  const copiesFolder = mkdtempSync(path.join(tmpdir(), 'morrin-copies-'));
  const app = createApp({ db, jobs: jobsHere, log: pino({ level: 'silent' }), copiesFolder, checksAnswers: true });
  const close = async () => {
    await db.end();
    rmSync(copiesFolder, { recursive: true, force: true });
  };
  return { app, db, copiesFolder, close };
}

/** Makes an empty database and gives its address. */
export const emptyDatabase = (name: string) => createDatabase(name, 'template1');

/** Makes a database with the newest schema, copied from the one that the run of tests began with. */
export const newestDatabase = (name: string) => createDatabase(name, 'newest_schema');

async function createDatabase(name: string, template: string): Promise<string> {
  const base = process.env.TEST_DATABASE_URL!;
  const admin = new pg.Client({ connectionString: base });
  await admin.connect();
  await admin.query(`CREATE DATABASE ${pg.escapeIdentifier(name)} TEMPLATE ${pg.escapeIdentifier(template)}`);
  await admin.end();
  const url = new URL(base);
  url.pathname = `/${name}`;
  return url.href;
}
