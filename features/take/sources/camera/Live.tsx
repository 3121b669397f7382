import { Camera, CameraOff } from 'lucide-react';
import { useEffect } from 'react';
import { Button } from '../../../ui/Button';
import { LiveVideo } from '../LiveVideo';
import { startCamera, stopCamera, useCamera } from './camera';

/** The camera, live; it is let go as soon as another source or view is chosen. */
export function Live() {
  const { stream, label, said } = useCamera();
  useEffect(() => stopCamera, []);
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
        <LiveVideo stream={stream} label="Camera, live" size={null} />
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
