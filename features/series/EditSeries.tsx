import { useState } from 'react';
import type { Series } from '@/core/contracts/series';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { useSettings } from '../settings/settingsStore';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { draftOf, firstDraft, patchOf } from './draft';
import { NextTimes } from './NextTimes';
import { SeriesForm } from './SeriesForm';

interface Props {
  series: Series;
  onClose: () => void;
  onSaved: () => void;
}

/** A series is changed; it goes on with what it has taken. */
export function EditSeries({ series, onClose, onSaved }: Props) {
  const settings = useSettings((s) => s.settings);
  const { source } = series.what;
  // As it was when the form was opened.
  const [stored] = useState(series);
  const [before] = useState(() => draftOf(series, firstDraft(settings, source, series.times.zone)));
  const [draft, setDraft] = useState(before);
  const [opened] = useState(() => Date.now());
  const [problem, setProblem] = useState<string | null>(null);
  const save = async () => {
    try {
      await api.changeSeries(series.id, patchOf(stored, before, draft));
      onSaved();
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  return (
    <Modal open wide title={`Edit ${series.name}`} onClose={onClose}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <SeriesForm
          draft={draft}
          onChange={(change) => {
            setProblem(null);
            setDraft((before) => ({ ...before, ...change }));
          }}
        />
        <NextTimes draft={draft} now={opened} />
        {problem && <Problem>{problem}</Problem>}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave it</Button>
          <Button look="next" type="submit">
            Save the series
          </Button>
        </div>
      </form>
    </Modal>
  );
}
