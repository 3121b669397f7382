import { useState } from 'react';
import { thumbnailUrl } from '../api/client';

/** The small picture of a shot; where there is none, as of a shot of a newer Rezzik, it says so. */
export function Thumbnail({ shot }: { shot: { id: string; revision: number } }) {
  const src = thumbnailUrl(shot);
  const [failed, setFailed] = useState<string | null>(null);
  return failed === src ? (
    <span className="grid size-full place-items-center p-2 text-center text-[13px] text-soft">
      Cannot be shown
    </span>
  ) : (
    <img
      src={src}
      alt=""
      loading="lazy"
      onError={() => setFailed(src)}
      className="size-full object-contain"
    />
  );
}
