import type { TakenNotice } from '@/core/contracts/display';
import { shared } from '../base/shared';

type Tell = (notice: TakenNotice) => void;

const pages = shared('pages', () => new Set<Tell>());

/** Tells every open page of a take that was made while Rezzik was out of sight. */
export function tellPages(notice: TakenNotice): void {
  for (const tell of pages) tell(notice);
}

/** Tells the page that was opened last. @returns false where none is open */
export function tellNewestPage(notice: TakenNotice): boolean {
  const newest = [...pages].at(-1);
  newest?.(notice);
  return newest !== undefined;
}

const BEAT = 20_000;

/** What open pages listen to: one server-sent event per take (HTML, server-sent events). */
export function pageStream(signal: AbortSignal): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let leave = (): void => undefined;
  return new ReadableStream({
    start(controller) {
      const send = (words: string) => controller.enqueue(encoder.encode(words));
      const tell: Tell = (notice) => send(`data: ${JSON.stringify(notice)}\n\n`);
      pages.add(tell);
      send(': listening\n\n');
      const beat = setInterval(() => send(': still here\n\n'), BEAT);
      leave = () => {
        pages.delete(tell);
        clearInterval(beat);
      };
      signal.addEventListener('abort', () => {
        // Where that was heard by the stream before, it is closed.
        if (pages.has(tell)) controller.close();
        leave();
      });
    },
    cancel: () => leave(),
  });
}
