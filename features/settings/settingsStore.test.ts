import { beforeEach, expect, test } from '@jest/globals';
import { firstSettings, type SettingsPatch } from '@/core/contracts/settings';
import { useNotices } from '../notices/noticeStore';
import {
  changeSettings,
  changeWay,
  readSettings,
  storeSettings,
  useSettings,
} from './settingsStore';

/** What was sent, in its order; and what answers. */
let sent: SettingsPatch[];
let answer: () => Promise<Response>;
let stored: object;

beforeEach(() => {
  sent = [];
  stored = { ...firstSettings, sound: true, showCountdown: false };
  answer = () => Promise.resolve(Response.json(firstSettings));
  Object.assign(globalThis, {
    fetch: (_: string, init?: { body: string }) => {
      if (!init) return Promise.resolve(Response.json(stored));
      sent.push(JSON.parse(init.body) as SettingsPatch);
      return answer();
    },
  });
  useNotices.setState({ notices: [] });
  useSettings.setState({ settings: firstSettings, read: false });
});

const turn = () => new Promise((resolve) => setTimeout(resolve, 0));
const now = () => useSettings.getState().settings;

test('a change before the first answer stands, and the rest is as it was stored', async () => {
  const reading = readSettings();
  changeWay({ delay: 3 });
  await reading;
  expect(now()).toMatchObject({ sound: true, showCountdown: false, way: { delay: 3 } });
  await turn();
  expect(sent).toEqual([{ way: { delay: 3 } }]);
});

test('changes are sent one after the other, in their order', async () => {
  let open: () => void = () => undefined;
  answer = () => new Promise((resolve) => (open = () => resolve(Response.json(firstSettings))));
  changeWay({ delay: 1 });
  changeWay({ delay: 2 });
  await turn();
  expect(sent).toHaveLength(1);
  open();
  for (let i = 0; i < 5 && sent.length < 2; i += 1) await turn();
  expect(sent.map((patch) => patch.way?.delay)).toEqual([1, 2]);
  open();
  await turn();
});

test('what is not stored is said, holds here, and goes with Try again', async () => {
  answer = () => Promise.reject(new TypeError('no answer'));
  changeSettings({ sound: true });
  for (let i = 0; i < 5; i += 1) await turn();
  const [said] = useNotices.getState().notices;
  expect(said?.title).toBe('This setting is not remembered yet');
  expect(now().sound).toBe(true);
  answer = () => Promise.resolve(Response.json(firstSettings));
  said?.action?.act();
  for (let i = 0; i < 5; i += 1) await turn();
  expect(sent).toEqual([{ sound: true }, { sound: true }]);
});

test('what could not be read is said', async () => {
  stored = { ...firstSettings, problem: 'Kept as they are, but not read: sound.' };
  await readSettings();
  expect(useNotices.getState().notices[0]?.lines).toEqual([
    'Kept as they are, but not read: sound.',
  ]);
});

test('what the server may refuse holds only once it is stored, one after the other', async () => {
  const answers: ((status: number) => void)[] = [];
  answer = () =>
    new Promise((resolve) =>
      answers.push((status) => resolve(Response.json(firstSettings, { status }))),
    );
  const first = storeSettings({ linkPort: 5001 });
  const second = storeSettings({ linkPort: 5002 });
  await turn();
  expect(sent).toEqual([{ linkPort: 5001 }]);
  expect(now().linkPort).toBeNull();
  answers[0]?.(200);
  await first;
  expect(now().linkPort).toBe(5001);
  await turn();
  answers[1]?.(409);
  await expect(second).rejects.toThrow();
  expect(now().linkPort).toBe(5001);
});
