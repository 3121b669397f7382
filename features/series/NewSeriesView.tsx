import { useEffect, useRef, useState } from 'react';
import { isOfPage, seriesSources } from '@/core/contracts/series';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { giveKeysBack } from '../keys/focus';
import { useKey } from '../keys/useKey';
import { notify } from '../notices/noticeStore';
import { useSettings } from '../settings/settingsStore';
import { followLink, navigate } from '../thread/navigate';
import { Thread } from '../thread/Thread';
import { Button } from '../ui/Button';
import { Confirm } from '../ui/Confirm';
import { Problem } from '../ui/Problem';
import { firstDraft, inputOf, type Draft } from './draft';
import { NextTimes } from './NextTimes';
import { SeriesForm } from './SeriesForm';

const zoneHere = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** From where, as the address says. */
function wantedSource(): Draft['source'] {
  const from = new URLSearchParams(window.location.search).get('from');
  return seriesSources.find((name) => name === from) ?? 'desk';
}

/** A new series is set up. */
export function NewSeriesView() {
  const settings = useSettings((s) => s.settings);
  const [source] = useState(wantedSource);
  const [changes, setChanges] = useState<Partial<Draft>>({});
  const [opened] = useState(() => Date.now());
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  /** Pressed twice, it is begun once: what is drawn comes later than the second press. */
  const begins = useRef(false);
  const [leaving, setLeaving] = useState(false);
  // What is not changed here follows the settings, which may come later.
  const draft = { ...firstDraft(settings, changes.source ?? source, zoneHere()), ...changes };
  useEffect(() => {
    document.title = 'New series – Rezzik';
  }, []);
  useKey('escape', () => (Object.keys(changes).length ? setLeaving(true) : navigate('/series')));
  const begin = async () => {
    if (begins.current) return;
    begins.current = true;
    setBusy(true);
    try {
      const { id, name } = await api.addSeries(inputOf(draft));
      notify({ key: 'series', tone: 'good', title: `“${name}” goes on by itself`, lines: [] });
      navigate(`/series/${id}`, 'replace');
    } catch (error) {
      setProblem(messageOf(error));
      setBusy(false);
      begins.current = false;
    }
  };
  return (
    <>
      <Thread
        step="take"
        actions={
          <Button look="next" disabled={busy} onClick={() => void begin()}>
            Begin the series
          </Button>
        }
      />
      <main data-home tabIndex={-1} className="min-h-0 grow overflow-auto p-6 outline-none">
        <p className="text-[13px] text-soft">
          <a href="/series" onClick={followLink} className="text-petrol underline">
            Series
          </a>{' '}
          ›
        </p>
        <h1 className="mb-4 font-name text-2xl">New series</h1>
        <div className="flex max-w-[1100px] items-start gap-5 max-[900px]:flex-col">
          <form
            className="flex min-w-0 grow flex-col gap-4"
            // The first Esc leaves the field, the next one the view.
            onKeyDown={({ key, target }) => {
              if (key === 'Escape' && target instanceof HTMLInputElement) giveKeysBack(target);
            }}
            onSubmit={(event) => {
              event.preventDefault();
              void begin();
            }}
          >
            <SeriesForm
              draft={draft}
              onChange={(change) => {
                setProblem(null);
                setChanges((before) => ({ ...before, ...change }));
              }}
            />
            {problem && <Problem>{problem}</Problem>}
            <div className="flex justify-end">
              <Button look="next" type="submit" disabled={busy}>
                Begin the series
              </Button>
            </div>
          </form>
          <aside
            aria-label="What that comes to"
            className="sticky top-0 w-[300px] shrink-0 rounded-[9px] border border-line bg-paper p-4"
          >
            <h2 className="mb-1 font-name text-base">What that comes to</h2>
            <NextTimes draft={draft} now={opened} />
            <p className="mt-3 text-soft">
              {isOfPage(draft.source)
                ? 'It goes on while a tab of Rezzik has it.'
                : 'It goes on with every tab closed, as long as Rezzik runs on this computer.'}{' '}
              What it misses, and why, stands in its calendar.
            </p>
          </aside>
        </div>
      </main>
      <Confirm
        open={leaving}
        title="Leave this series?"
        description="It has not begun, and what you said of it goes."
        verb="Leave without it"
        onYes={() => navigate('/series')}
        onClose={() => setLeaving(false)}
      />
    </>
  );
}
