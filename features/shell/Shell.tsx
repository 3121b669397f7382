'use client';

import './noEval';
import { Tooltip } from 'radix-ui';
import { useEffect } from 'react';
import { ClipView } from '../clips/ClipView';
import { CompareView } from '../compare/CompareView';
import { GuidesView } from '../guides/GuidesView';
import { GuideView } from '../guides/GuideView';
import { KeepView } from '../keep/KeepView';
import { startKeys } from '../keys/dispatch';
import { MarkView } from '../mark/MarkView';
import { startNaming } from '../names/rename';
import { startSending } from '../outbox/sender';
import { PrintView } from '../print/PrintView';
import { NewSeriesView } from '../series/NewSeriesView';
import { SeriesListView } from '../series/SeriesListView';
import { SeriesView } from '../series/SeriesView';
import { useSeriesHere } from '../series/takeHere';
import { SetupView } from '../setup/SetupView';
import { ShelfView } from '../shelf/ShelfView';
import { followSettings, readSettings } from '../settings/settingsStore';
import { joinRecording } from '../take/clip/record';
import { SmallControl } from '../take/SmallControl';
import { TakeView } from '../take/TakeView';
import { RoutineKeys } from '../take/RoutineKeys';
import { Announcer } from '../ui/Announcer';
import { useTakenElsewhere } from '../take/useTakenElsewhere';
import { startOffline } from './offline';
import { usePath } from '../thread/navigate';
import { GoKeys } from './GoKeys';
import { warnOfRoom } from './roomWarning';
import { KeysOverlay } from './KeysOverlay';
import { AnswerLine } from './AnswerLine';

const SHOT = /^\/shots\/([0-9a-f-]{36})(\/keep)?$/i;

const GUIDE = /^\/guides\/([0-9a-f-]{36})$/i;

const SERIES = /^\/series\/([0-9a-f-]{36})$/i;

const CLIP = /^\/clips\/([0-9a-f-]{36})(\/mark)?$/i;

const COMPARE = /^\/compare\/([0-9a-f-]{36})(?:,([0-9a-f-]{36}))?$/i;

const PRINT = /^\/print\/((?:[0-9a-f-]{36},?)+)$/i;

export function Shell() {
  const path = usePath();
  useEffect(() => startKeys(), []);
  useEffect(() => startSending(), []);
  useEffect(() => startNaming(), []);
  useEffect(() => startOffline(), []);
  useEffect(() => warnOfRoom(), []);
  useEffect(() => void readSettings(), []);
  useEffect(() => followSettings(), []);
  useEffect(() => void joinRecording(), []);
  useTakenElsewhere();
  useSeriesHere();
  return (
    <Tooltip.Provider delayDuration={500}>
      <div className="flex h-full flex-col">
        <div className="flex min-h-0 grow flex-col">
          <View path={path} />
        </div>
        <AnswerLine />
      </div>
      <KeysOverlay />
      <GoKeys />
      <RoutineKeys />
      <Announcer />
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
  const [, one, other] = COMPARE.exec(path.toLowerCase()) ?? [];
  if (one) return <CompareView key={path} first={one} second={other ?? one} />;
  const [, guide] = GUIDE.exec(path) ?? [];
  if (guide) return <GuideView key={guide} id={guide.toLowerCase()} />;
  if (path.startsWith('/guides')) return <GuidesView />;
  const [, clip, marked] = CLIP.exec(path) ?? [];
  if (clip && marked) return <MarkView key={path} clip id={clip.toLowerCase()} />;
  if (clip) return <ClipView key={clip} id={clip.toLowerCase()} />;
  const [, series] = SERIES.exec(path) ?? [];
  if (series) return <SeriesView key={series} id={series.toLowerCase()} />;
  if (path === '/series/new') return <NewSeriesView />;
  if (path.startsWith('/series')) return <SeriesListView />;
  if (path.startsWith('/shelf')) return <ShelfView />;
  if (path.startsWith('/setup')) return <SetupView page={path.split('/')[2] ?? 'folders'} />;
  return <TakeView />;
}
