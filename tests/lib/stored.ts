import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { sql } from '@/server/db/sql';

/** Every value of every table, as words and as bytes. */
export async function everyValue(): Promise<{ words: string; blobs: Buffer[] }> {
  const tables = await sql()<{ name: string }[]>`
    select table_name as name from information_schema.tables where table_schema = 'public'`;
  let words = '';
  const blobs: Buffer[] = [];
  for (const { name } of tables) {
    for (const row of await sql()`select * from ${sql()(name)}`) {
      for (const value of Object.values(row)) {
        if (Buffer.isBuffer(value)) blobs.push(value);
        else words += `${JSON.stringify(value)}\n`;
      }
    }
  }
  return { words, blobs };
}

/** Files below a folder, hidden ones too, that hold some bytes. */
export const filesHolding = (folder: string, wanted: Buffer): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .map((name) => join(folder, name))
    .filter((file) => statSync(file).isFile() && readFileSync(file).includes(wanted));
