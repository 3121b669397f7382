import { spawn } from 'node:child_process';
import type { TakenNotice } from '@/core/contracts/display';
import { env } from '../base/env';
import { desktopNotice } from '../display/notice';
import { tellNewestPage } from '../display/openPages';

/** What is to go on in a page: what it is told, the address that says the same, and in words. */
interface Going {
  name: string;
  tell: Omit<TakenNotice, 'routine' | 'lines'>;
  path: string;
  /** What is there, and what the person does with it: “The picture is still.”, “choose”. */
  there: string;
  act: string;
}

/**
 * Goes on in Rezzik's own page: the one that was opened last, else one that is opened; where that
 * cannot be, the desktop says where to go.
 * @returns whether a page was open
 */
export async function goOnInPage({ name, tell, path, there, act }: Going): Promise<boolean> {
  if (tellNewestPage({ routine: name, lines: [], ...tell })) {
    await desktopNotice(name, `${there} ${act[0]?.toUpperCase()}${act.slice(1)} in Rezzik.`);
    return true;
  }
  const address = `http://127.0.0.1:${env().port}${path}`;
  if (!(await isOpened(address))) await desktopNotice(name, `${there} Open ${address} to ${act}.`);
  return false;
}

/** What opens an address may stay as long as the browser it started; by then it has failed or not, ms. */
const OPENING = 3_000;

/** Opens a page of Rezzik in front, as the desktop opens addresses. */
function isOpened(address: string): Promise<boolean> {
  const child = spawn('xdg-open', [address], {
    ...{ detached: true, stdio: 'ignore', env: process.env },
  });
  child.unref();
  return new Promise((resolve) => {
    child.once('error', () => resolve(false));
    child.once('exit', (code) => resolve(code === 0));
    setTimeout(() => resolve(true), OPENING).unref();
  });
}
