import { useEffect } from 'react';
import { followLink } from '../thread/navigate';
import { Thread } from '../thread/Thread';
import { classes } from '../ui/classes';
import { LinkItem, Row } from '../ui/Row';
import { ArchivePage } from './archive/ArchivePage';
import { RoomPage } from './room/RoomPage';
import { DisplayPage } from './DisplayPage';
import { FoldersPage } from './FoldersPage';
import { KeysPage } from './KeysPage';
import { RoutinesPage } from './RoutinesPage';
import { SendingPage } from './SendingPage';
import { TakingPage } from './TakingPage';
import { WordsPage } from './WordsPage';

const pages = [
  { name: 'folders', label: 'Folders', Page: FoldersPage },
  { name: 'sending', label: 'Sending', Page: SendingPage },
  { name: 'routines', label: 'Routines', Page: RoutinesPage },
  { name: 'taking', label: 'Taking', Page: TakingPage },
  { name: 'keys', label: 'Keys', Page: KeysPage },
  { name: 'words', label: 'Words', Page: WordsPage },
  { name: 'computer', label: 'This computer', Page: DisplayPage },
  { name: 'room', label: 'Room', Page: RoomPage },
  { name: 'archive', label: 'Archive', Page: ArchivePage },
];

export function SetupView({ page }: { page: string }) {
  const current = pages.find((p) => p.name === page) ?? pages[0];
  const label = current?.label ?? 'Setup';
  useEffect(() => {
    document.title = `${label} – Setup – Rezzik`;
  }, [label]);
  if (!current) return null;
  return (
    <>
      <Thread place="setup" />
      <div className="flex min-h-0 grow">
        <nav aria-label="Setup" className="w-[200px] shrink-0 border-r border-line bg-paper p-3">
          <Row vertical label="Pages of Setup" className="flex flex-col">
            {pages.map(({ name, label }) => (
              <LinkItem key={name}>
                <a
                  href={`/setup/${name}`}
                  onClick={followLink}
                  aria-current={name === current.name ? 'page' : undefined}
                  className={classes(
                    'block rounded-[6px] px-3 py-1.5',
                    name === current.name ? 'bg-petrol text-card' : 'hover:bg-tint',
                  )}
                >
                  {label}
                </a>
              </LinkItem>
            ))}
          </Row>
        </nav>
        <main className="min-w-0 grow overflow-auto p-6">
          <current.Page />
        </main>
      </div>
    </>
  );
}
