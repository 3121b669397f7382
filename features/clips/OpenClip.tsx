import { Camera, PencilLine, Redo2, Scissors, Undo2 } from 'lucide-react';
import { useRef, useState } from 'react';
import type { Clip } from '@/core/contracts/clip';
import { clockOf } from '@/core/clip/clock';
import {
  beginAt,
  cutAway,
  endAt,
  firstKept,
  lastKept,
  pictureAt,
  SPEEDS,
  stepFrom,
  UNCUT,
} from '@/core/clip/cuts';
import { keptSeconds, speedAt, withSpeed } from '@/core/clip/played';
import type { Stretch } from '@/core/values/stretch';
import { messageOf } from '../api/ask';
import { videoUrl } from '../api/clips';
import { api } from '../api/client';
import { keyLabel, useAction, useKeyOf } from '../keys/useAction';
import { useKey } from '../keys/useKey';
import { renameShot } from '../names/rename';
import { notify } from '../notices/noticeStore';
import { momentAsked } from '../films/momentAsked';
import { TimeLine } from '../films/TimeLine';
import { followLink, navigate } from '../thread/navigate';
import { Thread } from '../thread/Thread';
import { Button } from '../ui/Button';
import { ChipRadios } from '../ui/ChipRadios';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import { Problem } from '../ui/Problem';
import { TitleField } from '../ui/TitleField';
import { DropRestOfClip } from './DropRestOfClip';
import { KeepClip } from './KeepClip';
import { LinkClip } from './LinkClip';
import { MarksOnIt } from './MarksOnIt';
import { PlayRow } from './PlayRow';
import { useCuts } from './useCuts';
import { useFilm } from './useFilm';
import { usePainted } from './usePainted';
import { useSound } from './useSound';
import { WhereFrom } from './WhereFrom';

const icon = { size: 16, strokeWidth: 1.75 };
const stretchSpeeds = SPEEDS.map((speed) => ({
  ...{ value: String(speed), label: `${speed}×` },
  called: speed === 1 ? 'At its own speed' : `${speed} times as fast, kept so`,
}));

/** A clip that is there: the picture, under it the time line, beside it what is done with it. */
export function OpenClip({ clip }: { clip: Clip }) {
  const { id, times, changes, width, height } = clip;
  const hand = useCuts(clip);
  const video = useRef<HTMLVideoElement>(null);
  const [first] = useState(() => pictureAt(times, momentAsked()));
  const film = useFilm(video, times, hand.cuts, first);
  const painted = useRef<HTMLCanvasElement>(null);
  const isPainted = usePainted(video, painted, clip);
  const [chosen, setChosen] = useState<Stretch | null>(null);
  const [title, setTitle] = useState(clip.title);
  const [plays, setPlays] = useState(true);
  const { picture, show } = film;
  const sound = useSound(clip, picture);
  const { cuts } = hand;
  const count = times.length;
  const isCut = cuts.away.length > 0 || cuts.speeds !== undefined;
  const cutOut = () => {
    if (!chosen) return;
    hand.change((all) => cutAway(all, chosen, count));
    setChosen(null);
  };
  const setSpeed = (value: string) => {
    const speed = SPEEDS.find((one) => String(one) === value);
    if (chosen && speed) hand.change((all) => withSpeed(all, chosen, speed));
  };
  const keys = {
    begin: useKeyOf('clip.begin'),
    end: useKeyOf('clip.end'),
    cut: useKeyOf('clip.cut'),
    mark: useKeyOf('clip.mark'),
    still: useKeyOf('clip.still'),
  };
  const pick = () => void pickStill(clip, times[picture] ?? 0);
  const extend = (by: 1 | -1) => {
    const next = Math.max(0, Math.min(count - 1, picture + by));
    const from = chosen?.from ?? picture;
    const to = (chosen?.to ?? picture + 1) - 1;
    const still = picture === from && to > from ? to : from;
    setChosen({ from: Math.min(still, next), to: Math.max(still, next) + 1 });
    show(next);
  };
  const changeFrom = (by: 1 | -1) => {
    const to =
      by > 0 ? changes?.find((at) => at > picture) : changes?.findLast((at) => at < picture);
    if (to !== undefined) show(to);
  };
  useKey('space', film.toggle);
  useKey(['arrowleft', 'arrowright'], ({ key }) =>
    show(stepFrom(cuts, picture, key === 'ArrowLeft' ? -1 : 1, count)),
  );
  useKey(['shift+arrowleft', 'shift+arrowright'], ({ key }) =>
    extend(key === 'ArrowLeft' ? -1 : 1),
  );
  useKey(['mod+arrowleft', 'mod+arrowright'], ({ key }) =>
    changeFrom(key === 'ArrowLeft' ? -1 : 1),
  );
  useKey('home', () => show(firstKept(cuts, count)));
  useKey('end', () => show(lastKept(cuts, count)));
  const beginHere = () => hand.change((all) => beginAt(all, picture, count));
  const endHere = () => hand.change((all) => endAt(all, picture, count));
  useAction('clip.begin', beginHere);
  useAction('clip.end', endHere);
  useAction('clip.cut', cutOut, { enabled: chosen !== null });
  const mark = () => navigate(`/clips/${id}/mark`, 'push', `?at=${times[picture] ?? 0}`);
  useAction('clip.mark', mark);
  useAction('clip.still', pick);
  useAction('mark.undo', hand.undo);
  useAction('mark.redo', hand.redo);
  useKey('escape', () => (chosen ? setChosen(null) : navigate('/shelf')));
  const rename = (to: string) => {
    setTitle(to);
    renameShot(id, to).catch((error: unknown) =>
      notify({ key: 'name', tone: 'bad', title: 'Not renamed', lines: [messageOf(error)] }),
    );
  };
  return (
    <>
      <Thread
        middle={<TitleField title={title} label="Name of the clip" onChange={rename} />}
        actions={
          <>
            <Button icon={<Camera {...icon} />} hint={keyLabel(keys.still)} onClick={pick}>
              Pick a still
            </Button>
            <Button icon={<PencilLine {...icon} />} hint={keyLabel(keys.mark)} onClick={mark}>
              Mark
            </Button>
          </>
        }
      />
      <div className="flex min-h-0 grow">
        <main
          aria-label="Clip"
          data-home
          tabIndex={-1}
          className="flex min-w-0 grow flex-col bg-desk outline-none"
        >
          <h1 className="sr-only">{title}</h1>
          <div className="[container-type:size] relative grid min-h-0 grow place-items-center p-4">
            <video
              ref={video}
              src={videoUrl(id)}
              // As large as it will be, before it has come.
              style={{
                aspectRatio: `${width} / ${height}`,
                width: `min(${width}px, 100cqw, ${(100 * width) / height}cqh)`,
              }}
              muted={sound.muted}
              playsInline
              preload="auto"
              onError={() => setPlays(false)}
              aria-label={`${title}, at ${clockOf(times[picture] ?? 0)}`}
              className={classes(
                'shadow-picture',
                isPainted && 'pointer-events-none absolute opacity-0',
              )}
            />
            {isPainted && (
              <canvas
                ref={painted}
                data-testid="painted-picture"
                aria-hidden
                className="max-h-full min-h-0 max-w-full shadow-picture"
              />
            )}
          </div>
          <div className="border-t border-line bg-paper pt-3">
            <PlayRow
              {...{ film, times }}
              kept={isCut ? keptSeconds(cuts, times) : null}
              sound={sound.control}
            />
            <div className="flex flex-wrap items-center gap-2 px-4 pb-2">
              <Button hint={keyLabel(keys.begin)} onClick={beginHere}>
                Begin here
              </Button>
              <Button hint={keyLabel(keys.end)} onClick={endHere}>
                End here
              </Button>
              <Button
                hint={keyLabel(keys.cut)}
                icon={<Scissors {...icon} />}
                disabled={!chosen}
                title="Drag over the time line, or hold Shift with the arrows, to choose what is cut out"
                onClick={cutOut}
              >
                Cut out
              </Button>
              <Button disabled={!isCut} onClick={() => hand.change(() => UNCUT)}>
                All of it
              </Button>
              <IconButton label="Undo" disabled={!hand.canUndo} onClick={hand.undo}>
                <Undo2 {...icon} />
              </IconButton>
              <IconButton label="Redo" disabled={!hand.canRedo} onClick={hand.redo}>
                <Redo2 {...icon} />
              </IconButton>
              {chosen && (
                <span className="ml-2 flex items-center gap-2">
                  <span className="text-[13px] text-soft">this part at</span>
                  <ChipRadios
                    label="Speed of what is chosen"
                    value={String(speedAt(cuts, chosen.from))}
                    options={stretchSpeeds}
                    onChange={setSpeed}
                  />
                </span>
              )}
            </div>
            {hand.problem && <Problem>{hand.problem}</Problem>}
            {!plays && (
              <Problem>
                This browser cannot play the film as it was recorded. It can be cut and kept all the
                same: as WebM or MP4 it plays everywhere.
              </Problem>
            )}
            <TimeLine
              {...{ id, times, changes, cuts, picture, chosen }}
              marksRevision={clip.marksRevision}
              onShow={show}
              onChoose={setChosen}
            />
          </div>
        </main>
        <aside
          aria-label="What becomes of it"
          className="flex w-[270px] shrink-0 flex-col gap-4 overflow-auto border-l border-line bg-paper p-3"
        >
          {clip.binnedAt && (
            <p className="text-brick">
              It lies in the Bin.{' '}
              <a href="/shelf" onClick={followLink} className="underline">
                Go to the Shelf
              </a>
            </p>
          )}
          <KeepClip {...{ clip, cuts }} stored={hand.stored} />
          <MarksOnIt clip={clip} />
          <LinkClip clip={clip} stored={hand.stored} />
          <WhereFrom clip={clip} />
          <DropRestOfClip {...{ clip, cuts }} stored={hand.stored} />
        </aside>
      </div>
    </>
  );
}

async function pickStill({ id }: Clip, at: number): Promise<void> {
  try {
    const shot = await api.pickStill(id, at);
    notify({
      ...{ key: 'still', tone: 'good', title: `The picture at ${clockOf(at)} is a shot` },
      picture: `/api/shots/${shot.id}/thumbnail?revision=${shot.revision}`,
      href: `/shots/${shot.id}`,
      action: { label: 'Mark', act: () => navigate(`/shots/${shot.id}`) },
    });
  } catch (error) {
    notify({ key: 'still', tone: 'bad', title: 'No still', lines: [messageOf(error)] });
  }
}
