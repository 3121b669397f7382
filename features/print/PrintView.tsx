import { Printer } from 'lucide-react';
import { useEffect, useState } from 'react';
import { leavingDescription, leavingTitle } from '@/core/keep/leaving';
import { api } from '../api/client';
import { Thread } from '../thread/Thread';
import { Button } from '../ui/Button';
import { NumberInput } from '../ui/NumberInput';
import { Problem } from '../ui/Problem';
import { Toggle } from '../ui/Toggle';
import { useAnswer } from '../api/useAnswer';

const papers = { a4: 'A4', letter: 'Letter' } as const;
type Paper = keyof typeof papers;

/** Pictures as they will lie on paper; the browser prints what is shown, and nothing else. */
export function PrintView({ ids }: { ids: readonly string[] }) {
  const [paper, setPaper] = useState<Paper>('a4');
  const [across, setAcross] = useState(false);
  const [margin, setMargin] = useState(12);
  const [each, setEach] = useState(true);
  const [words, setWords] = useState(true);
  useEffect(() => {
    document.title = 'Print – Rezzik';
  }, []);
  const { answer, problem } = useAnswer(
    () => Promise.all(ids.map((id) => api.shot(id))),
    ids.join(),
  );
  const shots = answer ?? [];
  return (
    <>
      <style>{`@page { size: ${paper} ${across ? 'landscape' : 'portrait'}; margin: ${margin}mm; }`}</style>
      <div className="print:hidden">
        <Thread
          step="keep"
          shot={ids[0] ?? null}
          actions={
            <Button
              look="next"
              icon={<Printer size={18} strokeWidth={1.75} />}
              disabled={shots.length === 0}
              onClick={() => window.print()}
            >
              Print
            </Button>
          }
        />
        <section
          aria-label="Paper"
          className="flex flex-wrap items-center gap-5 border-b border-line bg-card px-4 py-2"
        >
          <h1 className="sr-only">Print</h1>
          <label className="flex items-center gap-2">
            Paper
            <select
              value={paper}
              onChange={(event) => setPaper(event.target.value === 'letter' ? 'letter' : 'a4')}
              className="h-8 rounded-[6px] border border-edge bg-card px-2"
            >
              {Object.entries(papers).map(([name, label]) => (
                <option key={name} value={name}>
                  {label}
                </option>
              ))}
            </select>
          </label>
          <Toggle label="Across" checked={across} onChange={setAcross} />
          <NumberInput label="Margin, mm" value={margin} min={0} max={60} onCommit={setMargin} />
          {ids.length > 1 && <Toggle label="A page each" checked={each} onChange={setEach} />}
          <Toggle label="Title and description" checked={words} onChange={setWords} />
        </section>
      </div>
      <main
        aria-label="Pages"
        className="min-h-0 grow overflow-auto bg-desk p-6 print:overflow-visible print:bg-transparent print:p-0"
      >
        {problem && <Problem>{problem}</Problem>}
        {shots.map((shot) => (
          <figure
            key={shot.id}
            className="mx-auto mb-6 max-w-3xl bg-card p-6 shadow-picture print:mb-4 print:max-w-none print:bg-transparent print:p-0 print:shadow-none"
            style={each ? { breakAfter: 'page' } : { breakInside: 'avoid' }}
          >
            {words && <figcaption className="mb-2 font-bold">{leavingTitle(shot)}</figcaption>}
            <img
              src={`/api/shots/${shot.id}/picture?format=png&r=${shot.revision}`}
              alt={leavingDescription(shot) ?? leavingTitle(shot)}
              className="max-w-full print:max-h-[88vh]"
            />
            {words && leavingDescription(shot) && (
              <p className="mt-2 whitespace-pre-line">{leavingDescription(shot)}</p>
            )}
          </figure>
        ))}
      </main>
    </>
  );
}
