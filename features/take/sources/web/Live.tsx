import { Flower2, Globe } from 'lucide-react';
import { useState } from 'react';
import { flushSync } from 'react-dom';
import { PAGE_WAIT, addressProblem, pageWidths, type WayPage } from '@/core/contracts/page';
import { messageOf } from '../../../api/ask';
import { api } from '../../../api/client';
import { changeSettings, changeWay, useSettings } from '../../../settings/settingsStore';
import { giveKeysBack } from '../../../keys/focus';
import { Button } from '../../../ui/Button';
import { ChipRadios } from '../../../ui/ChipRadios';
import { Modal } from '../../../ui/Modal';
import { NumberInput } from '../../../ui/NumberInput';
import { Toggle } from '../../../ui/Toggle';
import type { LiveProps } from '../contract';
import { useWeb } from './web';

/** A web page: its address, how it is laid out, and what goes on while it is taken. */
export function Live(props: LiveProps) {
  const allowed = useSettings((s) => s.settings.pagesAllowed);
  return (
    <>
      <h1 className="mb-3 font-name text-lg">Web page</h1>
      {allowed ? (
        <div className="flex min-h-0 max-w-3xl grow flex-col gap-4 overflow-auto">
          <Form {...props} />
          <Going />
        </div>
      ) : (
        <Ask />
      )}
      <AskPrivate />
    </>
  );
}

function Ask() {
  return (
    <div className="grid min-h-0 grow place-content-center justify-items-center gap-4 text-center">
      <p role="status" className="max-w-md font-bold">
        Rezzik can take a web page by its address, in its whole length.
      </p>
      <p className="max-w-md text-soft">
        A browser that it starts for this fetches the page, with none of your logins. Before it
        fetches one from your own network, you are asked. You can take the leave back in Setup ›
        Taking.
      </p>
      <Button
        icon={<Globe size={18} strokeWidth={1.75} />}
        onClick={() => changeSettings({ pagesAllowed: true })}
      >
        Allow taking web pages
      </Button>
    </div>
  );
}

const changePage = (change: Partial<WayPage>): void =>
  changeWay({ page: { ...useSettings.getState().settings.way.page, ...change } });

/** Only an address is remembered; what is none stays in sight, and nothing is taken in its place. */
function setAddress(text: string): void {
  const isAddress = addressProblem(text) === null;
  useWeb.setState({ typed: isAddress || text.trim() === '' ? null : text });
  changePage({ address: isAddress ? text.trim() : '' });
}

function Form({ take, stop }: LiveProps) {
  const { address } = useSettings((s) => s.settings.way.page);
  const typed = useWeb((s) => s.typed);
  const [writing, setWriting] = useState<string | null>(null);
  const problem = writing === null && typed !== null ? addressProblem(typed) : null;
  const shown = writing ?? typed ?? address;
  const commit = () => {
    if (writing !== null) setAddress(writing);
    setWriting(null);
  };
  return (
    <div className="rounded-[9px] border border-line bg-card">
      <div className="border-b border-line p-4">
        <label className="block">
          <span className="mb-1 block font-bold">Address</span>
          <input
            value={shown}
            autoFocus
            onFocus={(event) => event.target.select()}
            inputMode="url"
            spellCheck={false}
            autoCapitalize="none"
            autoComplete="off"
            placeholder="example.org/page"
            aria-invalid={problem !== null}
            aria-describedby="address-problem"
            onChange={(event) => setWriting(event.target.value)}
            onBlur={commit}
            onKeyDown={(event) => {
              if (event.nativeEvent.isComposing) return;
              if (event.key === 'Escape' && stop) return stop();
              if (event.key === 'Escape') {
                flushSync(() => setWriting(null));
                giveKeysBack(event.currentTarget);
              }
              if (event.key !== 'Enter') return;
              event.preventDefault();
              commit();
              take?.();
            }}
            className="h-10 w-full rounded-[7px] border border-edge bg-paper px-3 font-measure"
          />
        </label>
        <p id="address-problem" role="status" className="text-[13px] text-brick empty:hidden">
          {problem}
        </p>
      </div>
      <Layout />
      <PracticeSite />
    </div>
  );
}

const widths = ['390', '768', '1280', '1920'].map((value) => ({
  ...{ value, label: value, called: `${value} pixels wide` },
}));
const scales = ['1', '2', '3'].map((value) => ({ value, label: `×${value}` }));

function Layout() {
  const { width, scale, dark, wait, whole } = useSettings((s) => s.settings.way.page);
  return (
    <div className="grid grid-cols-1 gap-x-8 gap-y-3 p-4 lg:grid-cols-2">
      <div className="flex flex-wrap items-center gap-2">
        <span className="font-bold">Width</span>
        <ChipRadios
          label="Width of the page in pixels"
          value={String(width)}
          options={widths}
          onChange={(chosen) => changePage({ width: Number(chosen) })}
        />
        <NumberInput
          label="own"
          value={width}
          min={pageWidths.least}
          max={pageWidths.most}
          onCommit={(value) => changePage({ width: Math.round(value) })}
        />
      </div>
      <div className="flex items-center gap-3">
        <span className="font-bold">Sharpness</span>
        <ChipRadios
          label="Pixels of the picture for each of the page"
          value={String(scale)}
          options={scales}
          onChange={(chosen) => changePage({ scale: Number(chosen) })}
        />
      </div>
      <Toggle
        label="Whole length"
        note="Off: what fits on a first screen"
        checked={whole}
        onChange={(on) => changePage({ whole: on })}
      />
      <Toggle
        label="Dark colours"
        note="Where the page has them"
        checked={dark}
        onChange={(on) => changePage({ dark: on })}
      />
      <Toggle
        label="Wait until it is quiet"
        note="Nothing more is loaded, at most 15 s"
        checked={wait === 'quiet'}
        onChange={(on) => changePage({ wait: on ? 'quiet' : 3 })}
      />
      {wait !== 'quiet' && (
        <NumberInput
          label="Seconds to wait after it is loaded"
          value={wait}
          min={0}
          max={PAGE_WAIT}
          onCommit={(value) => changePage({ wait: value })}
        />
      )}
    </div>
  );
}

/** Something to try it on that is always there. */
function PracticeSite() {
  const [problem, setProblem] = useState<string | null>(null);
  const fill = () =>
    api.practiceSite().then(
      (address) => {
        setProblem(null);
        setAddress(address);
      },
      (error: unknown) => setProblem(messageOf(error)),
    );
  return (
    <div className="flex flex-wrap items-center gap-3 border-t border-line px-4 py-3">
      <Button icon={<Flower2 size={16} strokeWidth={1.75} />} onClick={() => void fill()}>
        Practice site
      </Button>
      <p role="status" className="min-w-0 grow text-[13px] text-soft">
        {problem ?? 'A garden’s pages on this computer, to try it on.'}
      </p>
    </div>
  );
}

function Going() {
  const taking = useWeb((s) => s.taking);
  return (
    <p role="status" className="min-h-6 break-all">
      {taking && (
        <>
          <span className="font-bold">{taking.progress}</span>{' '}
          <span className="font-measure text-[13px] text-soft">{taking.address.slice(0, 300)}</span>
        </>
      )}
    </p>
  );
}

/** Asked once for each host; leaving it is the first choice. */
function AskPrivate() {
  const asking = useWeb((s) => s.asking);
  const answer = (allowed: boolean) => asking?.answer(allowed);
  return (
    <Modal
      open={asking !== null}
      title={`Take pages from ${asking?.host.slice(0, 100) ?? ''}?`}
      description="It is in your own network or on this computer, and what it shows may be meant for there only. Rezzik remembers a yes; Setup › Taking lists and forgets it."
      onClose={() => answer(false)}
    >
      <div className="flex flex-wrap justify-end gap-2">
        <Button onClick={() => answer(false)}>Leave it</Button>
        <Button onClick={() => answer(true)}>Take it from there</Button>
      </div>
    </Modal>
  );
}
