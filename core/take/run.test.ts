import { expect, test } from '@jest/globals';
import type { ThenStep } from '../places/registry';
import { doSteps, type Doers, type Hearer } from './run';

const FOLDER = '8d2a3c0e-1111-4222-8333-444455556666';
const keep: ThenStep = { do: 'keep', folderId: FOLDER };
const tag: ThenStep = { do: 'tag', tags: ['Frost', 'Beds'] };

/** Runs steps with doers that each take a while, and tells in which order all happened. */
async function ran(steps: readonly ThenStep[], doers: Doers<string>): Promise<string[]> {
  const heard: string[] = [];
  const hear: Hearer = {
    begins: (step) => heard.push(`begins ${step.do}`),
    done: (step, said) => heard.push(`${step.do}: ${said}`),
    failed: (step, words) => heard.push(`${step.do} failed: ${words}`),
  };
  await doSteps(steps, 'shot', { doers, hear });
  return heard;
}
const after = <T>(ms: number, value: T): Promise<T> =>
  new Promise((resolve) => setTimeout(() => resolve(value), ms));

test('each step begins when the one before is done, however long that takes', async () => {
  const doers: Doers<string> = {
    keep: () => after(30, { path: '/beds/north.png' }),
    tag: (_, { tags }) => Promise.resolve({ tags }),
  };
  expect(await ran([keep, tag], doers)).toEqual([
    'begins keep',
    'keep: Kept: /beds/north.png',
    'begins tag',
    'tag: Tagged: Frost, Beds',
  ]);
});

test('a link after a copy lands on the clipboard after it', async () => {
  const clipboard: string[] = [];
  const doers: Doers<string> = {
    copy: async () => {
      await after(30, null);
      clipboard.push('picture');
      return null;
    },
    link: () => {
      clipboard.push('address');
      return Promise.resolve({ address: 'http://127.0.0.1/v/1', copied: true });
    },
  };
  await ran([{ do: 'copy' }, { do: 'link' }], doers);
  expect(clipboard).toEqual(['picture', 'address']);
});

test('what fails is told with its reason and stops nothing else', async () => {
  const doers: Doers<string> = {
    keep: () => Promise.reject(new Error('Its folder is gone.')),
    tag: (_, { tags }) => after(5, { tags }),
  };
  expect(await ran([keep, tag], doers)).toEqual([
    'begins keep',
    'keep failed: Not kept in a folder. Its folder is gone.',
    'begins tag',
    'tag: Tagged: Frost, Beds',
  ]);
});

test('Mark shows before anything else; a copy is waited for until it waits for the person', async () => {
  const doers: Doers<string> = {
    copy: async (_, __, goOn) => {
      await after(20, null);
      goOn();
      return after(40, null);
    },
    mark: () => Promise.resolve(null),
    tag: (_, { tags }) => Promise.resolve({ tags }),
  };
  expect(await ran([{ do: 'copy' }, tag, { do: 'mark' }], doers)).toEqual([
    'begins mark',
    'mark: Open in Mark',
    'begins copy',
    'begins tag',
    'tag: Tagged: Frost, Beds',
    'copy: Copied: paste it anywhere',
  ]);
});

test('nothing more is begun with a shot that was thrown away meanwhile', async () => {
  let wanted = true;
  const heard: string[] = [];
  const doers: Doers<string> = {
    keep: () => {
      wanted = false;
      return after(5, { path: '/beds/north.png' });
    },
    tag: (_, { tags }) => Promise.resolve({ tags }),
  };
  const hear: Hearer = {
    isWanted: () => wanted,
    done: (step) => heard.push(step.do),
    failed: (step) => heard.push(`${step.do} failed`),
    left: (step) => heard.push(`${step.do} left`),
  };
  await doSteps([keep, tag], 'shot', { doers, hear });
  expect(heard).toEqual(['keep', 'tag left']);
});

test('what only the other side can do is said, not tried', async () => {
  expect(await ran([{ do: 'print' }, { do: 'here', folderId: FOLDER }], {})).toEqual([
    'print: Print it from Rezzik; it is on the Shelf',
    'here: Its folder is the browser’s: keep it from Rezzik’s page',
  ]);
});
