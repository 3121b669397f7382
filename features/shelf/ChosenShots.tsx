import {
  Archive,
  BookOpen,
  Columns2,
  Diff,
  FolderDown,
  Printer,
  TextCursorInput,
  X,
} from 'lucide-react';
import { useRef, useState } from 'react';
import type { ShotSummary } from '@/core/contracts/shot';
import { limits } from '@/core/values/limits';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { useRemotes } from '../keep/useRemotes';
import { navigate } from '../thread/navigate';
import { Button } from '../ui/Button';
import { LookChoice } from '../looks/LookChoice';
import { renameShot } from '../names/rename';
import { notify } from '../notices/noticeStore';
import { readTags } from '../tags/tagStore';
import { TagsField } from '../tags/TagsField';
import { JoinShots } from './JoinShots';
import { ManyNames } from './ManyNames';
import { useRun, type Run } from './useRun';
import { useFolders } from '../keep/useFolders';

interface Props {
  shots: readonly ShotSummary[];
  onClear: () => void;
  onGone: (id: string) => void;
  onChanged: (id: string, change: Partial<ShotSummary>) => void;
}

type What = 'keep' | 'bin' | 'rename';

const MOST_PRINTED = 50;
const MOST_JOINED = 30;
const icon = { size: 16, strokeWidth: 1.75 };

/** What is done with several chosen shots at once, with progress and a way to stop. */
export function ChosenShots({ shots, onClear, onGone, onChanged }: Props) {
  const [naming, setNaming] = useState(false);
  const [joining, setJoining] = useState(false);
  const names = useRef<ReadonlyMap<string, string>>(new Map());
  const folders = useFolders() ?? [];
  const remotes = useRemotes();
  const [chosen, setPlace] = useState<string | null>(null);
  const place = chosen ?? (folders.find((f) => f.isDefault) ?? folders[0])?.id ?? '';
  const remote = remotes.find(({ id }) => id === place);
  const { run, busy, start, stop } = useRun<What>({
    keep: (shot) =>
      remote ? api.send(shot.id, remote.id) : api.keep(shot.id, { folderId: place }),
    bin: async (shot) => {
      await api.bin(shot.id);
      onGone(shot.id);
    },
    rename: async (shot) => {
      const title = names.current.get(shot.id);
      if (!title) return;
      await renameShot(shot.id, title);
      onChanged(shot.id, { title });
    },
  });
  // What all of them have; a tag taken off is taken off all.
  const common = shots[0]?.tags.filter((name) => shots.every((s) => s.tags.includes(name))) ?? [];
  const tag = async (next: readonly string[]) => {
    const add = next.filter((name) => !common.includes(name));
    const remove = common.filter((name) => !next.includes(name));
    try {
      await api.tagMany(
        shots.map(({ id }) => id),
        { add, remove },
      );
      for (const { id, tags } of shots) {
        const left = tags.filter((name) => !remove.includes(name));
        onChanged(id, { tags: [...new Set([...left, ...add])].sort() });
      }
    } catch (error) {
      notify({ key: 'tags', tone: 'bad', title: 'Not tagged', lines: [messageOf(error)] });
    }
    await readTags();
  };
  const give = async (look: string) => {
    try {
      const { given, left } = await api.giveLook(
        look,
        oldestFirst(shots).map(({ id }) => id),
      );
      const names = new Map(shots.map(({ id, title }) => [id, title]));
      for (const { id, revision } of shots) {
        if (!left.some((shot) => shot.id === id)) onChanged(id, { revision: revision + 1 });
      }
      notify({
        key: 'look',
        tone: left.length ? 'bad' : 'good',
        title: given === 1 ? '1 shot has this look' : `${given} shots have this look`,
        lines: left.map(({ id, problem }) => `${names.get(id) ?? ''}: ${problem}`),
      });
    } catch (error) {
      notify({ key: 'look', tone: 'bad', title: 'No look given', lines: [messageOf(error)] });
    }
  };
  const guide = async () => {
    try {
      const { id } = await api.addGuide({ shots: oldestFirst(shots).map((shot) => shot.id) });
      navigate(`/guides/${id}`, 'push', '?new');
    } catch (error) {
      notify({ key: 'guide', tone: 'bad', title: 'No guide made', lines: [messageOf(error)] });
    }
  };
  return (
    <section
      aria-label="Chosen shots"
      className="flex flex-wrap items-center gap-2 border-b border-line bg-card px-4 py-2"
    >
      <span className="font-bold">
        {shots.length === 1 ? '1 shot chosen' : `${shots.length} shots chosen`}
      </span>
      <select
        aria-label="Folder"
        value={place}
        disabled={busy}
        onChange={(event) => setPlace(event.target.value)}
        className="h-8 rounded-[6px] border border-edge bg-card px-2"
      >
        {[...folders, ...remotes].map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      <Button
        icon={<FolderDown {...icon} />}
        disabled={busy || !place}
        onClick={() => void start('keep', shots)}
      >
        Keep all
      </Button>
      <Button
        icon={<Printer {...icon} />}
        disabled={busy || shots.length > MOST_PRINTED}
        onClick={() => navigate(`/print/${shots.map((shot) => shot.id).join(',')}`)}
      >
        Print all
      </Button>
      <Button icon={<Archive {...icon} />} disabled={busy} onClick={() => void start('bin', shots)}>
        Put in the bin
      </Button>
      <Button icon={<TextCursorInput {...icon} />} disabled={busy} onClick={() => setNaming(true)}>
        Rename
      </Button>
      <LookChoice
        value={null}
        none="Give a look …"
        className="h-8 rounded-[6px] border border-edge bg-card px-2"
        onChange={(look) => look && void give(look)}
      />
      <Button
        icon={<BookOpen {...icon} />}
        disabled={busy || shots.length > limits.guideItems}
        onClick={() => void guide()}
      >
        Guide
      </Button>
      <Button
        icon={<Diff {...icon} />}
        disabled={busy || shots.length !== 2}
        onClick={() =>
          navigate(
            `/compare/${oldestFirst(shots)
              .map(({ id }) => id)
              .join(',')}`,
          )
        }
      >
        Compare
      </Button>
      <Button
        icon={<Columns2 {...icon} />}
        disabled={busy || shots.length < 2 || shots.length > MOST_JOINED}
        onClick={() => setJoining(true)}
      >
        Join
      </Button>
      <div className="w-64">
        <TagsField label="Tags of all chosen" names={common} onChange={(next) => void tag(next)} />
      </div>
      <JoinShots open={joining} shots={shots} onClose={() => setJoining(false)} />
      <ManyNames
        open={naming}
        shots={shots}
        onNames={(given) => {
          names.current = given;
          void start('rename', shots);
        }}
        onClose={() => setNaming(false)}
      />
      <Button look="quiet" icon={<X {...icon} />} disabled={busy} onClick={onClear}>
        Choose none
      </Button>
      {run && (
        <div role="status" className="flex w-full flex-wrap items-center gap-2">
          <span>{said(run)}</span>
          {busy && <Button onClick={stop}>Stop</Button>}
          {run.left.length > 0 && (
            <Button onClick={() => void start(run.what, run.left)}>Go on with the rest</Button>
          )}
          {run.over && run.failed.length > 0 && (
            <>
              <ul className="w-full text-brick">
                {run.failed.map(({ shot, problem }) => (
                  <li key={shot.id}>
                    {shot.title}: {problem}
                  </li>
                ))}
              </ul>
              <Button
                onClick={() =>
                  void start(
                    run.what,
                    run.failed.map(({ shot }) => shot),
                  )
                }
              >
                Try those again
              </Button>
            </>
          )}
        </div>
      )}
    </section>
  );
}

/** In the order in which they are counted. */
const oldestFirst = (shots: readonly ShotSummary[]): ShotSummary[] =>
  [...shots].sort((a, b) => a.takenAt.localeCompare(b.takenAt));

function said({ done, total, failed, left, over }: Run<What>): string {
  if (!over) return `${done} of ${total} …`;
  const parts = [`${done - failed.length} of ${total} done`];
  if (failed.length) parts.push(`${failed.length} not, each is safe on the Shelf`);
  if (left.length) parts.push('stopped');
  return `${parts.join('; ')}.`;
}
