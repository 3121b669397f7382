'use client';

import { Tooltip } from 'radix-ui';
import { useEffect } from 'react';
import { KeepView } from '../keep/KeepView';
import { MarkView } from '../mark/MarkView';
import { startSending } from '../outbox/sender';
import { PrintView } from '../print/PrintView';
import { SetupView } from '../setup/SetupView';
import { ShelfView } from '../shelf/ShelfView';
import { readSettings } from '../take/settingsStore';
import { SmallControl } from '../small/SmallControl';
import { TakeView } from '../take/TakeView';
import { useTakenElsewhere } from '../take/useTakenElsewhere';
import { usePath } from './navigate';
import { KeysOverlay } from './KeysOverlay';
import { Notices } from './Notices';

const SHOT = /^\/shots\/([0-9a-f-]{36})(\/keep)?$/i;

const PRINT = /^\/print\/((?:[0-9a-f-]{36},?)+)$/i;

export function Shell() {
  const path = usePath();
  useEffect(() => startSending(), []);
  useEffect(() => void readSettings(), []);
  useTakenElsewhere();
  return (
    <Tooltip.Provider delayDuration={500}>
      <div className="flex h-full flex-col">
        <View path={path} />
      </div>
      <Notices />
      <KeysOverlay />
      <SmallControl />
    </Tooltip.Provider>
  );
}

function View({ path }: { path: string }) {
  const [, id, keep] = SHOT.exec(path) ?? [];
  if (id && keep) return <KeepView key={id} id={id.toLowerCase()} />;
  if (id) return <MarkView key={id} id={id.toLowerCase()} />;
  const [, printed] = PRINT.exec(path) ?? [];
  if (printed) return <PrintView key={printed} ids={printed.toLowerCase().split(',')} />;
  if (path.startsWith('/shelf')) return <ShelfView />;
  if (path.startsWith('/setup')) return <SetupView page={path.split('/')[2] ?? 'folders'} />;
  return <TakeView />;
}
