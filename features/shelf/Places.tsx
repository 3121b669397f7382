import { Archive, BookOpen, CalendarClock, Inbox } from 'lucide-react';
import { useEffect } from 'react';
import { useOutbox } from '../outbox/outbox';
import { followLink } from '../thread/navigate';
import { LinkItem, Row } from '../ui/Row';
import { formatCount } from '../ui/format';
import { useAsked } from './search/asked';
import { SavedSearches } from './searches/SavedSearches';
import { readSearches } from './searches/searchStore';
import { Place } from './places/Place';
import { Tags } from './places/Tags';
import { readTags } from '../tags/tagStore';
import { Sources } from './places/Sources';

/** Between two looks at how many shots there are of each, ms. */
const LOOK_AGAIN = 15_000;

interface Props {
  /** How many shots there are where nothing is asked for; null while that is not known. */
  total: number | null;
}

/** Where to look: everything, saved searches, tags, sources, the bin. */
export function Places({ total }: Props) {
  const { text, bin } = useAsked();
  const stored = useOutbox((o) => o.storedCount);
  useEffect(() => {
    const look = () => {
      if (document.hidden) return;
      void readTags();
      void readSearches();
    };
    look();
    // Words are read, and other tabs take and tag, meanwhile.
    const timer = setInterval(look, LOOK_AGAIN);
    return () => clearInterval(timer);
  }, [stored, total]);
  const icon = { size: 18, strokeWidth: 1.75 };
  const plain = text.trim() === '';
  return (
    <nav
      aria-label="Places"
      className="w-[200px] shrink-0 overflow-y-auto border-r border-line bg-paper p-2.5 max-[1100px]:w-[170px]"
    >
      <Row label="Places of the Shelf" vertical className="flex flex-col gap-0.5">
        <Place
          label="Everything"
          icon={<Inbox {...icon} />}
          to={{ text: '', bin: false }}
          current={plain && !bin}
          count={!bin && plain && total !== null ? formatCount(total) : null}
        />
        <Place
          label="Bin"
          icon={<Archive {...icon} />}
          to={{ text: '', bin: true }}
          current={bin}
          count={bin && plain && total !== null ? formatCount(total) : null}
        />
      </Row>
      <Row label="Made of shots" vertical className="mt-3 flex flex-col gap-0.5">
        <LinkItem>
          <a
            href="/guides"
            onClick={followLink}
            className="flex h-8 items-center gap-2 rounded-[6px] px-2 hover:bg-tint"
          >
            <BookOpen {...icon} />
            Guides
          </a>
        </LinkItem>
        <LinkItem>
          <a
            href="/series"
            onClick={followLink}
            className="flex h-8 items-center gap-2 rounded-[6px] px-2 hover:bg-tint"
          >
            <CalendarClock {...icon} />
            Series
          </a>
        </LinkItem>
      </Row>
      <SavedSearches />
      <Tags />
      <Sources />
    </nav>
  );
}
