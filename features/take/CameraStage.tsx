import { Camera, CameraOff } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Button } from '../ui/Button';
import { startCamera, stopCamera, useCamera } from './sources/camera';

/** The camera, live; it is let go as soon as another source or view is chosen. */
export function CameraStage() {
  const { stream, label, said } = useCamera();
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => stopCamera, []);
  useEffect(() => {
    if (video.current) video.current.srcObject = stream;
  }, [stream]);
  return (
    <>
      <div className="mb-3 flex items-center gap-3">
        <h1 className="font-name text-lg">Camera</h1>
        {stream && <span className="font-measure text-[13px] text-faint">{label}</span>}
        {stream && (
          <Button
            className="ml-auto"
            icon={<CameraOff size={16} strokeWidth={1.75} />}
            onClick={stopCamera}
          >
            Close the camera
          </Button>
        )}
      </div>
      {stream ? (
        <div className="grid min-h-0 grow place-items-center overflow-hidden">
          <video
            ref={video}
            autoPlay
            muted
            playsInline
            aria-label="Camera, live"
            className="max-h-full max-w-full rounded-[6px] shadow-picture"
          />
        </div>
      ) : (
        <div className="grid min-h-0 grow place-content-center justify-items-center gap-4 text-center">
          <p role="status" className="max-w-md font-bold">
            {said ?? 'A still from a camera: a label, a page, a thing on the table.'}
          </p>
          <Button icon={<Camera size={18} strokeWidth={1.75} />} onClick={() => void startCamera()}>
            Open the camera
          </Button>
        </div>
      )}
    </>
  );
}
