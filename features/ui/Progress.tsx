interface Props {
  /** Of what, for people who do not see it. */
  label: string;
  /** 0–1 of it is done. */
  share: number;
  /** Seconds that it will still take; null where that cannot be told. */
  left: number | null;
}

/** How far something is that takes a while. */
export function Progress({ label, share, left }: Props) {
  const percent = Math.round(100 * share);
  return (
    <div className="grow text-[13px]">
      <div
        role="progressbar"
        aria-label={label}
        aria-valuenow={percent}
        className="mb-1 h-2.5 rounded-full bg-tint"
      >
        <div className="h-full rounded-full bg-petrol" style={{ width: `${percent}%` }} />
      </div>
      {percent} %{left === null ? '' : ` · ${Math.ceil(left)} s left`}
    </div>
  );
}
