import { useState } from 'react';
import type { FormatFacts } from '@/core/contracts/format';
import type { Shot } from '@/core/contracts/shot';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { type MadePicture, type PictureWish } from '../api/picture';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { formatBytes } from '../ui/format';
import { NumberInput } from '../ui/NumberInput';
import { Problem } from '../ui/Problem';
import { Radio, Radios } from '../ui/Radios';
import { Chart } from './Chart';
import { OptionFields } from './OptionFields';
import { useChart } from './useChart';
import { factsFor } from './useFormats';
import type { Wish } from './wish';

interface Props {
  shot: Shot;
  formats: readonly FormatFacts[];
  wish: PictureWish;
  made: MadePicture | null;
  onChange: (change: Partial<Wish>) => void;
}

/** The file format and its options, with size and likeness before anything is kept. */
export function FormatPanel({ shot, formats, wish, made, onChange }: Props) {
  const facts = factsFor(formats, wish.format);
  const lossy = (facts?.quality ?? false) && wish.options?.lossless !== true;
  const chart = useChart(shot.id, shot.revision, wish, lossy && wish.maxBytes === undefined);
  return (
    <section aria-label="As">
      <h2 className="mb-1 flex items-baseline font-name text-base">
        <span className="grow">As</span>
        <span className="font-measure text-[13px] font-normal" aria-live="polite">
          {made && formatBytes(made.blob.size)}
        </span>
      </h2>
      <Radios
        label="Format"
        value={wish.format}
        className="mb-1 grid grid-cols-9 gap-1"
        onChange={(format) => onChange({ format, options: null })}
      >
        {formats.map(({ name, label }) => (
          <Radio
            key={name}
            value={name}
            className={classes(
              'h-7 rounded-[6px] border text-[13px] max-[1100px]:text-[12px]',
              name === wish.format
                ? 'border-petrol bg-tint font-bold text-petrol'
                : 'border-edge bg-card hover:bg-tint',
            )}
          >
            {label}
          </Radio>
        ))}
      </Radios>
      {/* Where there is a chart, that says it, and everything is to be seen at once. */}
      {!lossy && (
        <p className="mb-1 truncate text-[13px] text-soft" title={facts?.note}>
          {facts?.note}
        </p>
      )}
      {made?.transparent && facts && !facts.transparent && (
        <label className="mb-2 flex items-center gap-2 text-[13px]">
          <input
            type="color"
            value={wish.background ?? '#FFFFFF'}
            onChange={(event) => onChange({ background: event.target.value.toUpperCase() })}
            className="size-7"
          />
          Transparent parts get this colour: {facts.label} has no transparency.
        </label>
      )}
      {lossy && (
        <Chart
          chart={chart}
          quality={wish.quality ?? 85}
          onQuality={(quality) => onChange({ quality })}
        />
      )}
      <Limits shot={shot} wish={wish} made={made} lossy={lossy} onChange={onChange} />
      {facts && facts.fields.length > 0 && (
        <details className="mt-1">
          <summary className="text-[13px]">More of {facts.label}</summary>
          <OptionFields
            fields={facts.fields}
            options={wish.options ?? {}}
            onChange={(options) => onChange({ options })}
          />
        </details>
      )}
    </section>
  );
}

interface LimitsProps {
  shot: Shot;
  wish: PictureWish;
  made: MadePicture | null;
  lossy: boolean;
  onChange: (change: Partial<Wish>) => void;
}

/** “No more than so much”, and “as small as looks the same”. */
function Limits({ shot, wish, made, lossy, onChange }: LimitsProps) {
  /** What stops the search that is going on. */
  const [looking, setLooking] = useState<AbortController | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const same = async () => {
    const stop = new AbortController();
    setLooking(stop);
    setProblem(null);
    try {
      const { maxBytes: _, ...free } = wish;
      const found = await api.sameLooking(shot.id, free, stop.signal);
      onChange({ quality: found.quality, maxBytes: null });
    } catch (error) {
      if (!stop.signal.aborted) setProblem(messageOf(error));
    } finally {
      setLooking(null);
    }
  };
  return (
    <>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <NumberInput
          label="At most, KB"
          empty
          value={wish.maxBytes ? wish.maxBytes / 1000 : 0}
          min={0}
          max={100_000}
          onCommit={(kb) => onChange({ maxBytes: kb > 0 ? Math.round(kb * 1000) : null })}
        />
        {lossy && (
          <Button disabled={looking !== null} onClick={() => void same()}>
            {looking ? 'Looking …' : 'Looks the same'}
          </Button>
        )}
        {looking && (
          <Button look="quiet" onClick={() => looking.abort()}>
            Stop looking
          </Button>
        )}
      </div>
      {wish.maxBytes !== undefined && made && (
        <p className="mt-1 text-[13px] text-soft">
          {lossy && `Quality ${made.quality}, `}
          {made.width} × {made.height} px fit into {formatBytes(wish.maxBytes)}.
        </p>
      )}
      {problem && <Problem>{problem}</Problem>}
    </>
  );
}
