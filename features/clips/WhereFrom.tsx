import type { Clip } from '@/core/contracts/clip';
import { sourceLabels } from '@/core/contracts/provenance';
import { filmEnds } from '@/core/clip/cuts';
import { formatBytes, formatCount, formatMoment } from '../ui/format';

/** Where and when a clip was recorded, and what it is. */
export function WhereFrom({ clip }: { clip: Clip }) {
  const { provenance, width, height, times, bytes, codec, fineColours, sound } = clip;
  const rate = times.length / Math.max(0.1, filmEnds(times));
  return (
    <section aria-label="Where from">
      <h2 className="font-name text-base">Where from</h2>
      <p className="text-[13px] break-words text-soft">
        {[
          sourceLabels[provenance.source],
          provenance.display,
          provenance.windowTitle,
          provenance.fileName,
        ]
          .filter(Boolean)
          .join(', ')}
        <br />
        {formatMoment(provenance.takenAt)}
      </p>
      <p className="mt-1 font-measure text-[13px] text-soft">
        {width} × {height} px · {formatCount(times.length)} pictures · {rate.toFixed(0)} a second
        <br />
        {codec.toUpperCase()} · {sound ? 'with sound' : 'without sound'} · {formatBytes(bytes)}
      </p>
      {!fineColours && (
        <p className="mt-1 text-[13px] text-soft">
          Recorded with coarser colours than brightness: coloured words are a little soft.
        </p>
      )}
    </section>
  );
}
