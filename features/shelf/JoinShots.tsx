import { useState } from 'react';
import { joinWays, type JoinInput, type JoinWay } from '@/core/contracts/join';
import type { ShotSummary } from '@/core/contracts/shot';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { navigate } from '../thread/navigate';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { NumberInput } from '../ui/NumberInput';
import { Problem } from '../ui/Problem';
import { Radio, Radios } from '../ui/Radios';
import { chosenLook, classes } from '../ui/classes';
import { Toggle } from '../ui/Toggle';

interface Props {
  open: boolean;
  shots: readonly ShotSummary[];
  onClose: () => void;
}

const labels: Record<JoinWay, string> = {
  stacked: 'Stacked',
  'side by side': 'Side by side',
  grid: 'Grid',
  'before after': 'Before | after',
};

/** Puts several shots on one sheet, the oldest first; each stays a picture of its own there. */
export function JoinShots({ open, onClose, shots }: Props) {
  return (
    <Modal
      open={open}
      title="Join these shots"
      description="They lie on a new sheet, the oldest first. Each stays a piece that can be moved, sized and opened; the shots themselves do not change."
      onClose={onClose}
    >
      <Form shots={shots} />
    </Modal>
  );
}

type How = Omit<JoinInput, 'with'>;

function Form({ shots }: Pick<Props, 'shots'>) {
  const [how, setHow] = useState<How>({
    ...{ how: shots.length === 2 ? 'side by side' : 'stacked', equal: true, gap: 16 },
    ...{ background: '#FFFFFF', numbers: false },
  });
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const change = (patch: Partial<How>) => setHow((now) => ({ ...now, ...patch }));
  const join = async () => {
    const [first, ...rest] = [...shots].sort((a, b) => a.takenAt.localeCompare(b.takenAt));
    if (!first || rest.length === 0) {
      setProblem('Choose at least two shots.');
      return;
    }
    setBusy(true);
    try {
      const made = await api.duplicate(first.id, {
        join: { ...how, with: rest.map(({ id }) => id) },
      });
      navigate(`/shots/${made.id}`);
    } catch (error) {
      setProblem(messageOf(error));
      setBusy(false);
    }
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void join();
      }}
    >
      <Radios
        label="How they lie"
        value={how.how}
        className="flex flex-wrap gap-1.5"
        onChange={(next) => change({ how: next })}
      >
        {joinWays.map((way) => (
          <Radio
            key={way}
            value={way}
            disabled={way === 'before after' && shots.length !== 2}
            className={classes(
              'h-8 rounded-full border px-3 disabled:opacity-50',
              chosenLook(way === how.how),
            )}
          >
            {labels[way]}
          </Radio>
        ))}
      </Radios>
      <Toggle
        label="Equal"
        note="As wide as the narrowest; side by side, as high as the lowest"
        checked={how.equal ?? false}
        onChange={(equal) => change({ equal })}
      />
      <Toggle
        label="Numbers"
        note="Each gets a number that counts"
        checked={how.numbers ?? false}
        onChange={(numbers) => change({ numbers })}
      />
      <div className="flex flex-wrap items-center gap-4">
        <NumberInput
          label="Gap, px"
          value={how.gap ?? 0}
          min={0}
          max={400}
          onCommit={(gap) => change({ gap: Math.round(gap) })}
        />
        <Toggle
          label="Transparent"
          checked={how.background === null}
          onChange={(clear) => change({ background: clear ? null : '#FFFFFF' })}
        />
        {how.background !== null && (
          <label className="flex items-center gap-2">
            Background
            <input
              type="color"
              value={how.background}
              onChange={(event) => change({ background: event.target.value.toUpperCase() })}
              className="h-8 w-14 rounded-[6px] border border-edge bg-card"
            />
          </label>
        )}
      </div>
      {problem && <Problem>{problem}</Problem>}
      <div className="flex justify-end">
        <Button look="next" type="submit" disabled={busy}>
          Join them
        </Button>
      </div>
    </form>
  );
}
