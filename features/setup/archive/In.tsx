import { PackagePlus } from 'lucide-react';
import { useRef, useState } from 'react';
import type { Archive } from '@/core/contracts/archive';
import { api } from '../../api/client';
import { Button } from '../../ui/Button';
import { formatBytes } from '../../ui/format';
import type { Act } from '../../ui/act';
import { Latest } from './Done';

/** Brings in a file. */
export function In({ archives, act }: { archives: readonly Archive[]; act: Act }) {
  const picker = useRef<HTMLInputElement>(null);
  const [sending, setSending] = useState<{ file: File; stop: AbortController } | null>(null);
  const send = async (file: File) => {
    const stop = new AbortController();
    setSending({ file, stop });
    // One that was stopped by hand is no trouble.
    await act(
      api.bringIn(file, stop.signal).catch((error: unknown) => {
        if (!stop.signal.aborted) throw error;
      }),
    );
    setSending(null);
  };
  return (
    <section aria-label="In" className="rounded-[9px] border border-line bg-card px-4 py-3">
      <h2 className="mb-1 font-name text-lg">In again</h2>
      <p className="mb-3 text-soft">
        What is in an archive is added to what is here; nothing that is here is changed, and what is
        here already does not come twice. Folders, remote folders and routines wait until you
        confirm them.
      </p>
      <input
        ref={picker}
        type="file"
        accept=".zip,application/zip"
        aria-label="Archive to bring in"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) void send(file);
        }}
      />
      {sending ? (
        <div className="flex items-center gap-3">
          <Button onClick={() => sending.stop.abort()}>Stop</Button>
          <span role="status">
            Reading {sending.file.name} ({formatBytes(sending.file.size)}) …
          </span>
        </div>
      ) : (
        <Button
          icon={<PackagePlus size={18} strokeWidth={1.75} />}
          onClick={() => picker.current?.click()}
        >
          Choose an archive
        </Button>
      )}
      <Latest archives={archives} direction="in" act={act} />
    </section>
  );
}
