import { useRef, useState } from 'react';
import type { Folder } from '@/core/contracts/folder';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { dismiss, notify } from '../notices/noticeStore';
import { copyText } from '../pictures/clipboard';
import { saveBlob } from '../pictures/saveBlob';
import { guideStored, useGuide } from './guideStore';
import { labels } from './labels';
import type { Places } from './places';

const MONTH = 30;

/** What became of keeping in several places; one that fails holds up no other. */
interface Outcome {
  lines: string[];
  failed: string[];
  left: number;
  address: string | null;
}

async function keepEach(
  id: string,
  places: Places,
  folders: readonly Folder[],
  signal: AbortSignal,
): Promise<Outcome> {
  const outcome: Outcome = { lines: [], failed: [], left: 0, address: null };
  const attempt = async (place: string, work: () => Promise<void>) => {
    await work().catch((error: unknown) => {
      if (signal.aborted) throw error;
      outcome.failed.push(`${place}: ${messageOf(error)}`);
    });
  };
  for (const folderId of places.folders) {
    const name = folders.find((folder) => folder.id === folderId)?.name ?? '';
    await attempt(name, async () => {
      const kept = await api.keepGuide(id, { folderId, formats: places.formats }, signal);
      outcome.lines.push(...kept.files.map(({ path }) => path));
      outcome.left = kept.left;
    });
  }
  if (places.link) {
    await attempt('Link', async () => {
      const link = await api.linkGuide(id, { days: MONTH }, signal);
      outcome.address = link.openAddress ?? link.address;
      outcome.lines.push(outcome.address);
    });
  }
  return outcome;
}

function say({ lines, failed, left, address }: Outcome): void {
  const leftOut =
    left === 1
      ? '1 step is left out: its shot is in the Bin or gone.'
      : `${left} steps are left out: their shots are in the Bin or gone.`;
  notify({
    key: 'guide',
    tone: failed.length ? 'bad' : 'good',
    title:
      failed.length === 0
        ? 'The guide is kept'
        : lines.length
          ? 'The guide is not kept everywhere'
          : 'The guide was not kept',
    lines: [...failed, ...lines, ...(left > 0 ? [leftOut] : [])],
    stays: true,
    ...(address && { action: { label: 'Copy the link', act: () => void copyText(address) } }),
  });
}

/** Why there is nothing to keep, in words; null where there is. */
function whyNothing({ formats, folders, link }: Places): string | null {
  const { items = [] } = useGuide.getState().open?.guide ?? {};
  if (!items.some(({ kind }) => kind === 'step')) return 'There is no step in it yet.';
  if (formats.length === 0) return 'Choose what it is kept as.';
  return folders.length === 0 && !link ? 'Choose where it is kept.' : null;
}

/** Keeps a guide where it is wanted, says what became of it, and can be stopped. */
export function useKeeping(id: string, places: Places, folders: readonly Folder[]) {
  const [busy, setBusy] = useState(false);
  const stopper = useRef<AbortController | null>(null);
  const attempt = async (work: (signal: AbortSignal) => Promise<void>) => {
    if (stopper.current) return;
    const control = new AbortController();
    stopper.current = control;
    // What is typed in a field counts when it is left.
    if (document.activeElement instanceof HTMLInputElement) document.activeElement.blur();
    setBusy(true);
    dismiss('guide');
    try {
      await guideStored();
      await work(control.signal);
    } catch (error) {
      const stopped = control.signal.aborted;
      notify({
        key: 'guide',
        tone: stopped ? 'plain' : 'bad',
        title: stopped ? 'Stopped' : 'The guide was not kept',
        lines: [stopped ? 'What was kept before that stays.' : messageOf(error)],
      });
    } finally {
      stopper.current = null;
      setBusy(false);
    }
  };
  const keep = () => {
    const why = whyNothing(places);
    if (why) {
      notify({ key: 'guide', tone: 'plain', title: 'Nothing is kept', lines: [why] });
      return Promise.resolve();
    }
    return attempt(async (signal) => say(await keepEach(id, places, folders, signal)));
  };
  const download = () =>
    attempt(async (signal) => {
      const title = useGuide.getState().open?.title ?? 'Guide';
      for (const format of places.formats) {
        const file = await api.guideFile(id, format, signal);
        saveBlob(file, `${title}.${labels[format].extension}`);
      }
    });
  return { busy, keep, download, stop: () => stopper.current?.abort() };
}
