import pLimit from 'p-limit';
import { create } from 'zustand';
import {
  firstSettings,
  withPatch,
  type Settings,
  type SettingsPatch,
} from '@/core/contracts/settings';
import type { Way } from '@/core/contracts/way';
import { messageOf, noAnswer } from '../api/ask';
import { api } from '../api/client';
import { notify } from '../notices/noticeStore';

interface SettingsStore {
  settings: Settings;
  /** The server's answer is in; until then what is not changed here is as at first. */
  read: boolean;
}

/** How the person likes to take; the server remembers it. */
export const useSettings = create<SettingsStore>(() => ({ settings: firstSettings, read: false }));

/** Changes made here before the first answer came: that answer may not know of them. */
let early: SettingsPatch[] = [];
/** Changes the server does not have yet, in their order. */
const waiting: SettingsPatch[] = [];
let sending: Promise<void> | null = null;
const oneAtATime = pLimit(1);
const apply = (patch: SettingsPatch): void =>
  useSettings.setState(({ settings }) => ({ settings: withPatch(settings, patch) }));

/** Other tabs are told of changes and tell theirs, while this one is open. */
let channel: BroadcastChannel | null = null;

export function followSettings(): () => void {
  const open = new BroadcastChannel('rezzik-settings');
  open.onmessage = ({ data }: MessageEvent<SettingsPatch>) => apply(data);
  channel = open;
  return () => {
    open.close();
    channel = null;
  };
}

export async function readSettings(): Promise<void> {
  if (useSettings.getState().read) return;
  const answer = await api.settings().catch(() => null);
  if (!answer || useSettings.getState().read) return;
  const { problem, ...settings } = answer;
  // What was set while the answer was on its way stands, and the rest is as it was stored.
  useSettings.setState({ settings: early.reduce(withPatch, settings), read: true });
  early = [];
  if (problem)
    notify({
      key: 'settings',
      tone: 'bad',
      title: 'Some settings could not be read',
      lines: [problem],
    });
}

/**
 * For what the server may refuse: takes effect, here and in other tabs, only once it is stored; one
 * after the other. @throws with what the server says
 */
export const storeSettings = (patch: SettingsPatch): Promise<void> =>
  oneAtATime(async () => {
    await api.changeSettings(patch);
    apply(patch);
    channel?.postMessage(patch);
    if (!useSettings.getState().read) early.push(patch);
  });

/** Takes effect at once, here and in other tabs; sent in order, and said when it is not stored. */
export function changeSettings(patch: SettingsPatch): void {
  apply(patch);
  channel?.postMessage(patch);
  if (!useSettings.getState().read) early.push(patch);
  waiting.push(patch);
  sending ??= sendAll().finally(() => {
    sending = null;
  });
}

async function sendAll(): Promise<void> {
  for (let patch = waiting[0]; patch; patch = waiting[0]) {
    try {
      await api.changeSettings(patch);
    } catch (error) {
      notify({
        key: 'settings',
        tone: 'bad',
        title: 'This setting is not remembered yet',
        lines: [messageOf(error), 'It holds until this tab is closed.'],
        ...(noAnswer(error) && { action: { label: 'Try again', act: sendAgain } }),
      });
      // Without an answer it waits for the next change, or for Try again; a refused one goes.
      if (noAnswer(error)) return;
    }
    waiting.shift();
  }
}

function sendAgain(): void {
  sending ??= sendAll().finally(() => {
    sending = null;
  });
}

/** The last way of taking, changed. */
export const changeWay = (way: Partial<Way>): void => changeSettings({ way });
