import { Progress } from 'radix-ui';
import { useState } from 'react';
import { privateKinds } from '@/core/recognition/kinds';
import { countByKind } from '@/core/recognition/privateThings';
import { Button } from '../../ui/Button';
import { Problem } from '../../ui/Problem';
import {
  chooseThing,
  hideChosen,
  lookForPrivate,
  stopLooking,
  usePrivate,
} from '../recognise/privateStore';
import type { HideWith, Search } from '../recognise/privateStore';
import { Choice } from '../strip/controls';

/** What was found that looks private, for approval: beside the picture, where it is outlined. */
export function PrivateThings() {
  const { search } = usePrivate();
  if (search.name === 'none') return null;
  return (
    <section aria-label="Private things" className="rounded-[8px] border border-edge bg-card p-2.5">
      <h2 className="mb-2 font-name text-base">Private things</h2>
      {search.name === 'reading' && <Reading share={search.share} />}
      {search.name === 'failed' && (
        <Problem
          reason={search.why}
          action={<Button onClick={() => void lookForPrivate()}>Try again</Button>}
        >
          The words could not be read. The shot is as it was.
        </Problem>
      )}
      {search.name === 'found' && <Found search={search} />}
    </section>
  );
}

function Reading({ share }: { share: number }) {
  const percent = Math.round(share * 100);
  return (
    <>
      <p role="status" className="mb-2 text-soft">
        Reading the words on this computer …
      </p>
      <Progress.Root
        value={percent}
        aria-label="Reading the words"
        className="mb-2 h-2 overflow-hidden rounded-full bg-desk"
      >
        <Progress.Indicator
          data-filled
          className="h-full bg-petrol"
          style={{ width: `${percent}%` }}
        />
      </Progress.Root>
      <Button hint="Esc" onClick={stopLooking}>
        Stop
      </Button>
    </>
  );
}

const ways = [
  ['cover', 'Cover'],
  ['blur', 'Blur'],
  ['blocks', 'Blocks'],
] as const;

function Found({ search }: { search: Extract<Search, { name: 'found' }> }) {
  const [way, setWay] = useState<HideWith>('cover');
  const { things, chosen } = search;
  if (things.length === 0) {
    return (
      <>
        <p role="status" className="mb-2 text-soft">
          Nothing that looks like an address, a number or a key was found. Look yourself, too:
          recognition overlooks things.
        </p>
        <Button hint="Esc" onClick={stopLooking}>
          Close
        </Button>
      </>
    );
  }
  return (
    <>
      <p role="status" className="mb-2 text-soft">
        Found:{' '}
        {countByKind(things)
          .map(([kind, n]) => `${n} × ${privateKinds[kind]}`)
          .join(', ')}
        . Look yourself, too.
      </p>
      <ul className="mb-2 max-h-[34vh] overflow-auto">
        {things.map((thing, i) => (
          <li key={i}>
            <label className="flex min-h-7 items-start gap-2 py-0.5">
              <input
                type="checkbox"
                checked={chosen.has(i)}
                onChange={(event) => chooseThing(i, event.target.checked)}
                className="mt-1 size-4 accent-petrol"
              />
              <span className="min-w-0">
                <span className="block text-[13px] text-soft">{privateKinds[thing.kind]}</span>
                <span className="block font-measure text-[13px] break-all">{thing.text}</span>
              </span>
            </label>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-center gap-2">
        <Choice label="With" value={way} options={ways} onChange={setWay} />
        <Button disabled={chosen.size === 0} onClick={() => hideChosen(way)}>
          Hide {chosen.size}
        </Button>
        <Button look="quiet" hint="Esc" onClick={stopLooking}>
          Leave it
        </Button>
      </div>
    </>
  );
}
