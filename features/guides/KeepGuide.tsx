import { BookDown } from 'lucide-react';
import type { GuideFormat, GuideShot } from '@/core/contracts/guide';
import { toggled } from '../keep/chosenPlaces';
import { PlaceSwitch } from '../keep/PlaceSwitch';
import { useFolders } from '../keep/useFolders';
import { useAction } from '../keys/useAction';
import { modifier } from '../keys/useKey';
import { LookChoice } from '../looks/LookChoice';
import { Button } from '../ui/Button';
import { chosenLook, classes } from '../ui/classes';
import { ClipsChoice } from './ClipsChoice';
import { FilmsOfIt } from './FilmsOfIt';
import { change, useGuide } from './guideStore';
import { labels } from './labels';
import { useChosenPlaces } from './places';
import { useKeeping } from './useKeeping';
import { useGuideShots } from './useNumbers';

const formats = Object.keys(labels) as GuideFormat[];
const SIZES = [800, 1200, 1600, 2400];
const select = 'mt-1 h-8 w-full rounded-[6px] border border-edge bg-card px-2';

/** How a guide is kept: as what, where, how large, in which look. */
export function KeepGuide({ id, onChoose }: { id: string; onChoose: (step: string) => void }) {
  const guide = useGuide((s) => s.open?.guide);
  const folders = useFolders() ?? [];
  const [places, setPlaces] = useChosenPlaces(folders);
  const { busy, keep, stop, download } = useKeeping(id, places, folders);
  useAction('keep.go', () => void keep());
  const steps = guide?.items.filter(({ kind }) => kind === 'step').length ?? 0;
  const count = places.folders.length + (places.link ? 1 : 0);
  return (
    <aside
      aria-label="How to keep it"
      className="flex w-[288px] shrink-0 flex-col-reverse border-l border-line bg-paper max-[1000px]:w-[230px]"
    >
      <div className="flex flex-col gap-2 border-t border-line px-4 py-2">
        {busy && <FilmsOfIt id={id} />}
        {busy && <Button onClick={stop}>Stop</Button>}
        <Button
          look="next"
          className="h-11 text-base"
          hint={`${modifier}+Enter`}
          icon={<BookDown size={18} strokeWidth={1.75} className="shrink-0" />}
          disabled={busy || steps === 0 || count === 0 || places.formats.length === 0}
          onClick={() => void keep()}
        >
          {busy ? 'Keeping …' : 'Keep the guide'}
        </Button>
      </div>
      <div className="min-h-0 grow overflow-auto px-4 py-2">
        <h2 className="mb-1 font-name text-base">Keep as</h2>
        <div role="group" aria-label="Formats" className="flex flex-wrap gap-1.5">
          {formats.map((format) => {
            const on = places.formats.includes(format);
            return (
              <button
                key={format}
                type="button"
                aria-pressed={on}
                title={labels[format].note}
                onClick={() => setPlaces({ formats: toggled(places.formats, format, !on) })}
                className={classes('h-8 rounded-full border px-3', chosenLook(on))}
              >
                {labels[format].label}
              </button>
            );
          })}
        </div>
        <p className="mt-1 text-[13px] text-soft">
          {places.formats.length === 0 && 'Choose at least one.'}
          {places.formats.length === 1 && places.formats.map((format) => labels[format].note)}
        </p>
        <h2 className="mt-3 mb-1 font-name text-base">Where</h2>
        <div className="flex flex-col gap-1">
          {folders.map((folder) => (
            <PlaceSwitch
              key={folder.id}
              label={folder.name}
              note={folder.path}
              problem={folder.problem}
              on={places.folders.includes(folder.id)}
              onChange={(on) => setPlaces({ folders: toggled(places.folders, folder.id, on) })}
            />
          ))}
          <PlaceSwitch
            label="Link, one month"
            note="shows the page as it is now; can be taken back"
            on={places.link}
            onChange={(link) => setPlaces({ link })}
          />
        </div>
        <Button
          className="mt-2 w-full"
          disabled={busy || steps === 0 || places.formats.length === 0}
          onClick={() => void download()}
        >
          Download
        </Button>
        <h2 className="mt-3 font-name text-base">Pictures</h2>
        <label className="mt-1 block">
          Longest side
          <select
            className={select}
            value={guide?.longest ?? ''}
            onChange={(event) =>
              change((draft) => {
                draft.guide.longest = Number(event.target.value) || null;
              })
            }
          >
            <option value="">as they are</option>
            {SIZES.map((size) => (
              <option key={size} value={size}>
                at most {size} px
              </option>
            ))}
          </select>
        </label>
        <div className="mt-2">
          Look
          <LookChoice
            value={guide?.look ?? null}
            none="as each is"
            className={select}
            onChange={(look) =>
              change((draft) => {
                draft.guide.look = look;
              })
            }
          />
        </div>
        <ClipsChoice className={select} onChoose={onChoose} />
        <Descriptions onChoose={onChoose} />
      </div>
    </aside>
  );
}

/** Whose picture has no words for people who do not see it. */
function Descriptions({ onChoose }: { onChoose: (step: string) => void }) {
  const items = useGuide((s) => s.open?.guide.items);
  const shots = useGuideShots();
  const isBare = (shot: GuideShot | undefined) => shot?.state === 'there' && !shot.description;
  const steps = (items ?? []).flatMap((item) => (item.kind === 'step' ? [item] : []));
  const bare = steps.filter(({ shot }) => isBare(shots.get(shot)));
  if (bare.length === 0) return null;
  return (
    <>
      <h2 className="mt-3 mb-1 font-name text-base">Descriptions</h2>
      <div className="rounded-[8px] border border-edge bg-card p-2">
        <p className="font-bold">
          {`${bare.length} of ${steps.length} ${bare.length === 1 ? 'has' : 'have'} none.`}
        </p>
        <ul>
          {bare.slice(0, 20).map(({ id, heading, shot }) => (
            <li key={id}>
              <button
                type="button"
                onClick={() => onChoose(id)}
                className="w-full truncate text-left text-petrol underline"
              >
                {heading || shots.get(shot)?.name || (shots.get(shot)?.clip ? 'Clip' : 'Picture')}
              </button>
            </li>
          ))}
        </ul>
      </div>
    </>
  );
}
