import { useEffect } from 'react';
import { takenNoticeSchema } from '@/core/contracts/display';
import { navigate } from '../thread/navigate';
import { notify } from '../notices/noticeStore';
import { beginEntry, noteOutcome } from '../trail/trail';
import { useOutbox } from '../outbox/outbox';
import { useBack } from './back/backState';
import { joinRecording, leaveEnded } from './clip/record';
import { endedByItself, heldByServer, joinHolding } from './back/hold';
import { chooseOnHeld, lookBackBy } from './routineStore';
import { useSettings } from '../settings/settingsStore';

/** Takes made by a system key while Rezzik was out of sight: said here, and opened in Mark. */
export function useTakenElsewhere(): void {
  const allowed = useSettings((s) => s.settings.displayAllowed);
  const holds = useBack((s) => s.on !== null);
  const listens = allowed || holds;
  useEffect(() => {
    if (allowed) void joinHolding();
  }, [allowed]);
  useEffect(() => {
    if (!listens) return;
    const stream = new EventSource('/api/display/events');
    // Whoever drives the page from outside can tell that nothing is missed from now on.
    stream.onopen = () => (document.documentElement.dataset.hears = 'takes');
    stream.onmessage = ({ data }: MessageEvent<string>) => {
      const read = takenNoticeSchema.safeParse(JSON.parse(data));
      if (!read.success) return;
      const { routine, lines, shot, mark, keep, choose, held, locked, film, recording } = read.data;
      if (locked) return endedByItself(lines.join(' '));
      if (recording) return void joinRecording();
      if (film) return void lookBackBy(film);
      if (held !== undefined) return heldByServer(held, lines[0]);
      if (choose) return void chooseOnHeld(choose);
      useOutbox.setState(({ storedCount }) => ({ storedCount: storedCount + 1 }));
      if (shot) void leaveEnded(shot);
      if (shot) beginEntry(shot, routine, new Date().toISOString());
      if (shot) {
        for (const said of lines) noteOutcome(shot, { key: said, state: 'done', said });
      }
      if (shot && keep) navigate(`/shots/${shot}/keep`, 'push', '?ask');
      else if (shot && mark) navigate(`/shots/${shot}`);
      notify({
        key: `taken ${shot ?? routine}`,
        tone: shot ? 'good' : 'bad',
        title: routine,
        lines,
        href: shot && `/shots/${shot}`,
        picture: shot && `/api/shots/${shot}/thumbnail?revision=1`,
      });
    };
    return () => stream.close();
  }, [listens]);
}
