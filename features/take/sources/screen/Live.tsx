import { MonitorUp, MonitorX } from 'lucide-react';
import { Button } from '../../../ui/Button';
import { LiveVideo } from '../LiveVideo';
import { useSettings } from '../../../settings/settingsStore';
import { startSharing, stopSharing, useScreen } from './screen';

/** The shared screen, live; shared once, it serves every further take. */
export function Live() {
  const { stream, surface, size, said } = useScreen();
  return (
    <>
      <div className="mb-3 flex items-center gap-3">
        <h1 className="font-name text-lg">Shared screen</h1>
        {stream && size && (
          <span className="font-measure text-[13px] text-faint">
            {surface} · {size.width} × {size.height} px
          </span>
        )}
        {stream && (
          <Button
            className="ml-auto"
            icon={<MonitorX size={16} strokeWidth={1.75} />}
            onClick={stopSharing}
          >
            Stop sharing
          </Button>
        )}
      </div>
      {stream ? (
        <LiveVideo stream={stream} label="Shared screen, live" size={size} />
      ) : (
        <div className="grid min-h-0 grow place-content-center justify-items-center gap-4 text-center">
          <p role="status" className="max-w-md font-bold">
            {said ??
              'Share a screen, a window or a tab once; then take from it as often as you like.'}
          </p>
          <p className="max-w-md text-soft">
            The browser asks what to share and shows that it is shared. Rezzik takes a picture only
            when you say so.
          </p>
          <Button
            icon={<MonitorUp size={18} strokeWidth={1.75} />}
            onClick={() => void startSharing(useSettings.getState().settings.way)}
          >
            Share a screen
          </Button>
        </div>
      )}
    </>
  );
}
