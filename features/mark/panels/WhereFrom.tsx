import type { ReactNode } from 'react';
import { sourceLabels, type Provenance } from '@/core/contracts/provenance';
import { formatMoment } from '../../ui/format';
import { useDocument } from '../session/document';

const SHOWN = 200;

/** Of a long page: how many pictures it was joined of. */
const joinedOf = ({ frames }: Provenance): string | undefined =>
  frames && frames > 1 ? `of ${frames} pictures` : undefined;

/** Leads there, where it is a page's. */
function Address({ written }: { written: string }) {
  if (!/^https?:\/\//.test(written)) return written;
  return (
    <a href={written} target="_blank" rel="noopener noreferrer" className="break-all underline">
      {written.length > SHOWN ? `${written.slice(0, SHOWN)}…` : written}
    </a>
  );
}

export function WhereFrom() {
  const provenance = useDocument((s) => s.provenance);
  const view = useDocument((s) => s.history.document.view.crop);
  const facts: [string, ReactNode][] = [
    ['From', sourceLabels[provenance.source]],
    ['Display', provenance.display],
    [provenance.source === 'web' ? 'Page' : 'Window', provenance.windowTitle],
    ['Address', provenance.address && <Address written={provenance.address} />],
    ['Part', provenance.part],
    ['Series', provenance.series],
    ['File', provenance.fileName],
    ['Taken', formatMoment(provenance.takenAt)],
    ['Until', provenance.until && formatMoment(provenance.until)],
    ['Joined', joinedOf(provenance)],
    ['Size', `${view.width} × ${view.height} px`],
  ];
  return (
    <section aria-label="Where from">
      <h2 className="mb-1 font-name text-base">Where from</h2>
      <dl className="grid grid-cols-[70px_1fr] gap-x-2 gap-y-0.5">
        {facts.map(
          ([label, value]) =>
            value && (
              <div key={label} className="contents">
                <dt className="text-soft">{label}</dt>
                <dd className="break-words">{value}</dd>
              </div>
            ),
        )}
      </dl>
    </section>
  );
}
