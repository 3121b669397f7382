import { create } from 'zustand';
import { followLink } from '../thread/navigate';
import { classes } from '../ui/classes';
import { LinkItem, Row } from '../ui/Row';
import { useTrail } from './trail';

const KEY = 'rezzik-trail-row';

const wasOpen = (): boolean => {
  try {
    return localStorage.getItem(KEY) === '1';
  } catch {
    return false;
  }
};

/** Whether the trail stands as a row in Mark; remembered by this browser. */
export const useTrailRow = create<{ open: boolean }>(() => ({ open: wasOpen() }));

export function toggleTrailRow(): void {
  const open = !useTrailRow.getState().open;
  useTrailRow.setState({ open });
  try {
    localStorage.setItem(KEY, open ? '1' : '0');
  } catch {
    // Then it is opened again next time.
  }
}

/** The last takes as small pictures, the one in hand marked. */
export function TrailRow({ current }: { current: string }) {
  const open = useTrailRow((s) => s.open);
  const entries = useTrail((s) => s.entries).filter((entry) => !entry.gone);
  if (!open || entries.length === 0) return null;
  return (
    <Row
      label="Trail"
      className="flex h-[62px] shrink-0 items-center gap-2 overflow-x-auto border-t border-line bg-paper px-3"
    >
      {entries.map(({ id, title }) => (
        <LinkItem key={id}>
          <a
            href={`/shots/${id}`}
            onClick={followLink}
            title={title}
            aria-label={title}
            aria-current={id === current ? 'true' : undefined}
            className={classes(
              'h-12 w-[76px] shrink-0 overflow-hidden rounded-[5px] border bg-card',
              id === current ? 'border-petrol ring-2 ring-petrol' : 'border-line',
            )}
          >
            <img
              src={`/api/shots/${id}/thumbnail?revision=1`}
              alt=""
              loading="lazy"
              className="size-full object-cover"
            />
          </a>
        </LinkItem>
      ))}
    </Row>
  );
}
