import { useEffect, useRef } from 'react';
import { fitScale } from '@/core/geometry/rect';
import type { Size } from '@/core/geometry/size';
import { useSize } from '../../ui/useSize';
import { WatchedOutline } from '../long/Watched';

interface Props {
  stream: MediaStream;
  label: string;
  /** Of its pictures, pixels. */
  size: Size | null;
}

/** A stream as it comes, as large as it fits. */
export function LiveVideo({ stream, label, size }: Props) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (video.current) video.current.srcObject = stream;
  }, [stream]);
  const [frame, space] = useSize<HTMLDivElement>();
  const scale = size && space.width > 0 ? fitScale(size, space, 1) : 0;
  return (
    <div ref={frame} className="grid min-h-0 grow place-items-center overflow-hidden">
      <div
        className="relative grid max-h-full min-h-0 max-w-full"
        style={size && scale ? { width: size.width * scale, height: size.height * scale } : {}}
      >
        <video
          ref={video}
          autoPlay
          muted
          playsInline
          aria-label={label}
          className="max-h-full max-w-full rounded-[6px] shadow-picture"
        />
        {size && <WatchedOutline {...size} />}
      </div>
    </div>
  );
}
