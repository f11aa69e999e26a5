import pg from 'pg';
import { closeDb } from '../src/lib/server/db';
import { migrate } from '../src/lib/server/migrate';

/** The PostgreSQL server that tests may make databases on; undefined if there is none. */
export const server = process.env.DATABASE_URL;

/** Makes an empty database with all tables, for the tests of one file, and lets the program use it; returns how to end that. */
export async function ownDatabase(of: string): Promise<() => Promise<void>> {
  const name = `${of}_${process.pid}`;
  const client = new pg.Client({ connectionString: server });
  await client.connect();
  await client.query(`drop database if exists ${name}`);
  await client.query(`create database ${name}`);
  await client.end();
  const url = new URL(server!);
  url.pathname = `/${name}`;
  process.env.DATABASE_URL = url.href;
  await migrate();
  return async () => {
    await closeDb();
    process.env.DATABASE_URL = server;
  };
}
