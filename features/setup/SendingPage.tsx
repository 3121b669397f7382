import { Plus, RotateCw, Trash2 } from 'lucide-react';
import { useCallback, useEffect, useState, type FormEvent } from 'react';
import { formatNames, type FormatName } from '@/core/contracts/format';
import type { Dropped } from '@/core/contracts/mail';
import type { Programs } from '@/core/contracts/program';
import type { Remote, Sending } from '@/core/contracts/remote';
import { api, messageOf } from '../api/client';
import { useFormats } from '../keep/useFormats';
import { changeSettings, readSettings, useSettings } from '../take/settingsStore';
import { Button } from '../ui/Button';
import { formatBytes, formatMoment } from '../ui/format';
import { IconButton } from '../ui/IconButton';
import { NumberInput } from '../ui/NumberInput';
import { Problem } from '../ui/Problem';
import { Toggle } from '../ui/Toggle';

const FIRST_PORT = 4311;

interface Known {
  remotes: readonly Remote[];
  sendings: readonly Sending[];
  dropped: readonly Dropped[];
  programs: Programs | null;
}

/** Everything that leaves this computer or its folders: links, remote folders, mail, programs. */
export function SendingPage() {
  const [known, setKnown] = useState<Known>({
    remotes: [],
    sendings: [],
    dropped: [],
    programs: null,
  });
  const [problem, setProblem] = useState<string | null>(null);
  const read = useCallback(async () => {
    try {
      const [remotes, sendings, dropped, programs] = await Promise.all([
        api.remotes(),
        api.waitingSendings(),
        api.mailDrop(),
        api.programs(),
      ]);
      setKnown({ remotes, sendings, dropped, programs });
      setProblem(null);
    } catch (error) {
      setProblem(messageOf(error));
    }
  }, []);
  useEffect(() => {
    void read();
    void readSettings();
  }, [read]);
  const act = async (work: Promise<unknown>) => {
    try {
      await work;
      await read();
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  return (
    <div className="flex max-w-3xl flex-col gap-6">
      <h1 className="font-name text-xl">Sending</h1>
      {problem && (
        <Problem action={<Button onClick={() => void read()}>Try again</Button>}>{problem}</Problem>
      )}
      <Links onProblem={setProblem} />
      <Letters />
      <Remotes remotes={known.remotes} act={act} />
      <Waiting sendings={known.sendings} act={act} />
      <Drop messages={known.dropped} />
      <ProgramList programs={known.programs} />
    </div>
  );
}

type Act = (work: Promise<unknown>) => Promise<void>;

function Links({ onProblem }: { onProblem: (words: string) => void }) {
  const port = useSettings((s) => s.settings.linkPort);
  const set = (linkPort: number | null) => {
    api
      .changeSettings({ linkPort })
      .then(() => changeSettings({ linkPort }))
      .catch((error: unknown) => onProblem(messageOf(error)));
  };
  return (
    <section aria-label="Links">
      <h2 className="mb-2 font-name text-lg">Links</h2>
      <div className="rounded-[9px] border border-line bg-card px-4 py-2.5">
        <Toggle
          label="Reached from other machines"
          note="A second door that shows linked pictures and nothing else. The rest of Rezzik stays on this computer."
          checked={port !== null}
          onChange={(on) => set(on ? FIRST_PORT : null)}
        />
        {port !== null && (
          <NumberInput label="Port" value={port} min={1024} max={65_535} onCommit={set} />
        )}
      </div>
    </section>
  );
}

/** From which size on words are taken for readable. */
function Letters() {
  const least = useSettings((s) => s.settings.readableFrom);
  return (
    <section aria-label="Small words">
      <h2 className="mb-2 font-name text-lg">Small words</h2>
      <div className="rounded-[9px] border border-line bg-card px-4 py-2.5">
        <NumberInput
          label="Readable from this height of a small x on, pixels"
          value={least}
          min={3}
          max={30}
          onCommit={(readableFrom) => changeSettings({ readableFrom })}
        />
      </div>
    </section>
  );
}

const field = 'h-9 w-full rounded-[7px] border border-edge bg-card px-2.5';
const firstRemote = {
  name: '',
  url: 'https://',
  username: '',
  password: '',
  format: 'png' as FormatName,
};
const labels = { name: 'Name', url: 'Address', username: 'User name', password: 'Password' };

function Remotes({ remotes, act }: { remotes: readonly Remote[]; act: Act }) {
  const [input, setInput] = useState<typeof firstRemote | null>(null);
  const formats = useFormats();
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (!input) return;
    void act(api.addRemote(input)).then(() => setInput(null));
  };
  return (
    <section aria-label="Remote folders">
      <div className="mb-2 flex items-center gap-2">
        <h2 className="grow font-name text-lg">Remote folders</h2>
        <Button onClick={() => void act(api.practiceRemote())}>Practice remote folder</Button>
        <Button
          icon={<Plus size={16} strokeWidth={1.75} />}
          onClick={() => setInput(input ? null : firstRemote)}
        >
          Add a remote folder
        </Button>
      </div>
      <p className="mb-2 text-soft">
        Places on other machines, over WebDAV. What cannot be sent waits here and is sent later.
      </p>
      {input && (
        <form
          onSubmit={add}
          className="mb-2 grid grid-cols-2 gap-3 rounded-[9px] border border-line bg-card p-3"
        >
          {(['name', 'url', 'username', 'password'] as const).map((name) => (
            <label key={name} className="block">
              <span className="block font-bold">{labels[name]}</span>
              <input
                className={field}
                type={name === 'password' ? 'password' : 'text'}
                autoComplete="off"
                value={input[name]}
                onChange={(event) => setInput({ ...input, [name]: event.target.value })}
              />
            </label>
          ))}
          <label className="block">
            <span className="block font-bold">Format</span>
            <select
              className={field}
              value={input.format}
              onChange={(event) => {
                const format = formatNames.find((name) => name === event.target.value);
                if (format) setInput({ ...input, format });
              }}
            >
              {formats.map(({ name, label }) => (
                <option key={name} value={name}>
                  {label}
                </option>
              ))}
            </select>
          </label>
          <Button type="submit" className="col-span-2 justify-self-end">
            Add it
          </Button>
        </form>
      )}
      <ul className="flex flex-col gap-2">
        {remotes.map((remote) => (
          <li
            key={remote.id}
            className="flex items-center gap-3 rounded-[9px] border border-line bg-card p-3"
          >
            <div className="min-w-0 grow">
              <p className="font-name text-base">{remote.name}</p>
              <p className="font-measure text-[13px] break-all text-soft">
                {remote.url} · {remote.pattern}
              </p>
            </div>
            <IconButton
              label={`Remove ${remote.name}`}
              onClick={() => void act(api.removeRemote(remote.id))}
            >
              <Trash2 size={18} strokeWidth={1.75} />
            </IconButton>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Waiting({ sendings, act }: { sendings: readonly Sending[]; act: Act }) {
  if (sendings.length === 0) return null;
  return (
    <section aria-label="Waiting to be sent">
      <h2 className="mb-2 font-name text-lg">Waiting to be sent</h2>
      <ul className="flex flex-col gap-2">
        {sendings.map((sending) => (
          <li
            key={sending.id}
            className="flex items-center gap-3 rounded-[9px] border border-line bg-card p-3"
          >
            <div className="min-w-0 grow">
              <p className="font-bold">
                {sending.name}{' '}
                <span className="font-normal text-soft">to {sending.remoteName}</span>
              </p>
              <p className="text-brick">{sending.problem}</p>
              <p className="text-[13px] text-soft">
                {formatBytes(sending.size)}, tried {sending.tries}×, next{' '}
                {formatMoment(sending.nextTry)}
              </p>
            </div>
            <IconButton label="Send now" onClick={() => void act(api.sendAgain(sending.id))}>
              <RotateCw size={18} strokeWidth={1.75} />
            </IconButton>
            <IconButton label="Give it up" onClick={() => void act(api.dropSending(sending.id))}>
              <Trash2 size={18} strokeWidth={1.75} />
            </IconButton>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Drop({ messages }: { messages: readonly Dropped[] }) {
  return (
    <section aria-label="Mail drop">
      <h2 className="mb-2 font-name text-lg">Mail drop</h2>
      <p className="mb-2 text-soft">
        Messages that went nowhere, to try mail with. {messages.length === 0 && 'None yet.'}
      </p>
      <ul>
        {messages.map((message) => (
          <li key={message.name}>
            <a
              href={`/api/mail-drop/${message.name}`}
              download={message.name}
              className="text-petrol underline"
            >
              {message.subject || 'No subject'}
            </a>{' '}
            <span className="text-[13px] text-soft">
              {message.to && `to ${message.to}, `}
              {formatBytes(message.bytes)}, {formatMoment(message.at)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function ProgramList({ programs }: { programs: Programs | null }) {
  if (!programs) return null;
  return (
    <section aria-label="Programs">
      <h2 className="mb-2 font-name text-lg">Programs</h2>
      <p className="mb-2 text-soft">
        Programs on this computer that open kept copies. They stand in a file that only you can
        write, never this page:{' '}
        <span className="font-measure text-[13px] break-all">{programs.file}</span>
      </p>
      {programs.problem && <Problem>{programs.problem}</Problem>}
      <ul className="list-disc pl-5">
        {programs.programs.map(({ name, opensFolder }) => (
          <li key={name}>
            {name}{' '}
            <span className="text-soft">{opensFolder ? 'opens the place' : 'opens the file'}</span>
          </li>
        ))}
      </ul>
      <p className="mt-1 text-[13px] text-soft">
        For example{' '}
        <span className="font-measure">
          {'[{"name": "Open the place", "command": "/usr/bin/xdg-open", "opensFolder": true}]'}
        </span>
      </p>
    </section>
  );
}
