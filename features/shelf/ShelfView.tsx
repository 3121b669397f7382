import { Aperture, Archive, Inbox } from 'lucide-react';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import type { ShotSummary } from '@/core/contracts/shot';
import { followLink, navigate } from '../shell/navigate';
import { Thread } from '../shell/Thread';
import { bringIn, filesIn } from '../take/sources/files';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { formatCount } from '../ui/format';
import { Problem } from '../ui/Problem';
import { Days } from './Days';
import { Many } from './Many';
import { ShotFacts } from './ShotFacts';
import { useShots } from './useShots';

/** All shots by day, newest first; the bin beside them. */
export function ShelfView() {
  const [bin, setBin] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const list = useShots(bin);
  const [several, setSeveral] = useState<readonly string[]>([]);
  const many = useMemo(
    () => list.shots.filter((s) => several.includes(s.id)),
    [list.shots, several],
  );
  const shot = useMemo(() => list.shots.find((s) => s.id === chosen) ?? null, [list.shots, chosen]);
  useEffect(() => {
    document.title = 'Shelf – Rezzik';
    const paste = (event: ClipboardEvent) => {
      const files = filesIn(event.clipboardData);
      if (files.length) void bringIn(files, 'pasted', false);
    };
    document.addEventListener('paste', paste);
    return () => document.removeEventListener('paste', paste);
  }, []);
  const show = (which: boolean) => {
    setBin(which);
    setChosen(null);
    setSeveral([]);
  };
  return (
    <>
      <Thread
        place="shelf"
        shot={shot && !bin ? shot.id : null}
        actions={
          <Button
            look="next"
            icon={<Aperture size={18} strokeWidth={1.75} />}
            onClick={() => navigate('/take')}
          >
            Take
          </Button>
        }
      />
      <div className="flex min-h-0 grow">
        <nav aria-label="Places" className="w-[180px] shrink-0 border-r border-line bg-paper p-2.5">
          <Place
            label="Everything"
            icon={<Inbox size={18} strokeWidth={1.75} />}
            current={!bin}
            count={bin ? null : list.total}
            onClick={() => show(false)}
          />
          <Place
            label="Bin"
            icon={<Archive size={18} strokeWidth={1.75} />}
            current={bin}
            count={bin ? list.total : null}
            onClick={() => show(true)}
          />
        </nav>
        <main aria-label={bin ? 'Bin' : 'Shots by day'} className="flex min-w-0 grow flex-col">
          <h1 className="sr-only">{bin ? 'Bin' : 'Shelf'}</h1>
          {many.length > 0 && !bin && (
            <Many
              shots={many}
              onClear={() => setSeveral([])}
              onGone={(id) => {
                list.remove(id);
                setSeveral((all) => all.filter((one) => one !== id));
              }}
            />
          )}
          {list.problem && (
            <div className="p-4">
              <Problem action={<Button onClick={list.reload}>Try again</Button>}>
                {list.problem}
              </Problem>
            </div>
          )}
          {list.loaded && list.shots.length === 0 && list.waiting.length === 0 ? (
            <Empty bin={bin} />
          ) : (
            <Days
              list={list}
              chosen={chosen}
              several={several}
              onSeveral={setSeveral}
              onChoose={setChosen}
              onOpen={(s: ShotSummary) => !bin && navigate(`/shots/${s.id}`)}
            />
          )}
        </main>
        {shot && (
          <ShotFacts
            key={shot.id}
            shot={shot}
            onChanged={list.replace}
            onGone={(id) => {
              list.remove(id);
              setChosen(null);
            }}
          />
        )}
      </div>
    </>
  );
}

interface PlaceProps {
  label: string;
  icon: ReactNode;
  current: boolean;
  count: number | null;
  onClick: () => void;
}

function Place({ label, icon, current, count, onClick }: PlaceProps) {
  return (
    <button
      type="button"
      aria-pressed={current}
      onClick={onClick}
      className={classes(
        'mb-1 flex h-8 w-full items-center gap-2.5 rounded-[6px] px-2 text-left',
        current ? 'bg-petrol text-card' : 'hover:bg-tint',
      )}
    >
      {icon}
      <span className="grow">{label}</span>
      {count !== null && <span className="font-measure text-[13px]">{formatCount(count)}</span>}
    </button>
  );
}

function Empty({ bin }: { bin: boolean }) {
  return (
    <p className="m-auto max-w-sm text-center text-soft">
      {bin ? (
        'The bin is empty.'
      ) : (
        <>
          Nothing on the Shelf yet.{' '}
          <a href="/take" onClick={followLink} className="text-petrol underline">
            Take the first picture
          </a>
          ; every shot lands here by itself.
        </>
      )}
    </p>
  );
}
