import { spawn } from 'node:child_process';
import { readFile, stat } from 'node:fs/promises';
import { dirname, isAbsolute, join } from 'node:path';
import { z } from 'zod';
import type { Programs } from '@/core/contracts/program';
import { env } from '../base/env';
import { errorCode } from '../base/errorCode';
import { Fault, notFound } from '../base/fault';
import { getCopy } from '../keep/copyRows';

/** The list of programs: written by its owner in a file that the web cannot write. */
const listSchema = z.array(
  z.strictObject({
    name: z.string().min(1).max(100),
    /** Whole path of the program. */
    command: z.string().min(1).refine(isAbsolute, 'must be a whole path'),
    /** Before the file's path; each is one argument, and no shell looks at them. */
    args: z.array(z.string().max(1000)).max(20).default([]),
    /** It is given the folder of the copy instead, as file managers want it. */
    opensFolder: z.boolean().default(false),
  }),
);
type Program = z.output<typeof listSchema>[number];

const listFile = (): string => join(env().dataDir, 'programs.json');

const GROUP_OR_OTHERS = 0o022;

async function read(): Promise<{ programs: Program[]; problem: string | null }> {
  const file = listFile();
  try {
    const { mode, uid } = await stat(file);
    const own = process.getuid?.() ?? uid;
    if (mode & GROUP_OR_OTHERS || (uid !== own && uid !== 0)) {
      return {
        programs: [],
        problem: `${file} can be written by others, so it is not used. Make it yours alone: chmod 600.`,
      };
    }
    return { programs: listSchema.parse(JSON.parse(await readFile(file, 'utf8'))), problem: null };
  } catch (error) {
    if (errorCode(error) === 'ENOENT') return { programs: [], problem: null };
    return { programs: [], problem: `${file} cannot be read as a list of programs.` };
  }
}

export async function listPrograms(): Promise<Programs> {
  const { programs, problem } = await read();
  return {
    file: listFile(),
    problem,
    programs: programs.map(({ name, opensFolder }) => ({ name, opensFolder })),
  };
}

/** Opens a kept copy, or its place, with a listed program. @throws Fault 404, 409 when it cannot start */
export async function openCopy(copyId: string, name: string): Promise<void> {
  const copy = await getCopy(copyId);
  const program = (await read()).programs.find((one) => one.name === name);
  if (!program) throw notFound('program');
  await stat(copy.path).catch(() => {
    throw new Fault(409, 'copy-gone', `The copy ${copy.path} is not there any more.`);
  });
  const target = program.opensFolder ? dirname(copy.path) : copy.path;
  await new Promise<void>((resolve, reject) => {
    const child = spawn(program.command, [...program.args, target], {
      detached: true,
      stdio: 'ignore',
      shell: false,
    });
    child.once('spawn', () => {
      child.unref();
      resolve();
    });
    child.once('error', (error) =>
      reject(
        new Fault(409, 'program-failed', `${program.name} could not be started.`, {
          reason: error.message,
        }),
      ),
    );
  });
}
