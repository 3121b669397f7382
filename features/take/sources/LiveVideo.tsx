import { useEffect, useRef } from 'react';

/** A stream as it comes, as large as it fits. */
export function LiveVideo({ stream, label }: { stream: MediaStream; label: string }) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (video.current) video.current.srcObject = stream;
  }, [stream]);
  return (
    <div className="grid min-h-0 grow place-items-center overflow-hidden">
      <video
        ref={video}
        autoPlay
        muted
        playsInline
        aria-label={label}
        className="max-h-full max-w-full rounded-[6px] shadow-picture"
      />
    </div>
  );
}
