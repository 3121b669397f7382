import { create } from 'zustand';
import {
  firstSettings,
  withPatch,
  type Settings,
  type SettingsPatch,
} from '@/core/contracts/settings';
import type { Way } from '@/core/contracts/way';
import { api } from '../api/client';

interface SettingsStore {
  settings: Settings;
  read: boolean;
}

/** How the person likes to take; the server remembers it. */
export const useSettings = create<SettingsStore>(() => ({ settings: firstSettings, read: false }));

export async function readSettings(): Promise<void> {
  if (useSettings.getState().read) return;
  const settings = await api.settings().catch(() => null);
  // What was set while the answer was on its way stands.
  if (settings && !useSettings.getState().read) useSettings.setState({ settings, read: true });
}

/** Takes effect at once; a server that does not answer only means it is forgotten on the next visit. */
export function changeSettings(patch: SettingsPatch): void {
  useSettings.setState(({ settings }) => ({ settings: withPatch(settings, patch), read: true }));
  void api.changeSettings(patch).catch(() => undefined);
}

/** The last way of taking, changed. */
export const changeWay = (way: Partial<Way>): void => changeSettings({ way });
