import { BookOpen } from 'lucide-react';
import { useEffect } from 'react';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { notify } from '../notices/noticeStore';
import { useAnswer } from '../api/useAnswer';
import { Thumbnail } from '../pictures/Thumbnail';
import { followLink, navigate } from '../thread/navigate';
import { Thread } from '../thread/Thread';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { ago } from '../ui/format';

/** All guides, the last changed first. */
export function GuidesView() {
  const { answer, problem, again } = useAnswer(() => api.guides(), 'guides');
  useEffect(() => {
    document.title = 'Guides – Rezzik';
  }, []);
  const begin = async () => {
    try {
      const { id } = await api.addGuide({ shots: [] });
      navigate(`/guides/${id}`, 'push', '?new');
    } catch (error) {
      notify({ key: 'guide', tone: 'bad', title: 'No guide made', lines: [messageOf(error)] });
    }
  };
  return (
    <>
      <Thread
        place="shelf"
        actions={
          <Button
            look="next"
            icon={<BookOpen size={18} strokeWidth={1.75} />}
            onClick={() => void begin()}
          >
            New guide
          </Button>
        }
      />
      <main className="min-h-0 grow overflow-auto p-6">
        <p className="text-[13px] text-soft">
          <a href="/shelf" onClick={followLink} className="text-petrol underline">
            Shelf
          </a>{' '}
          ›
        </p>
        <h1 className="mb-4 font-name text-2xl">Guides</h1>
        {problem && (
          <Problem action={<Button onClick={again}>Try again</Button>}>{problem}</Problem>
        )}
        {answer?.length === 0 && (
          <p className="max-w-md text-soft">
            There is no guide yet. Choose some shots on the Shelf and press Guide: they become the
            steps of one, in their order.
          </p>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(260px,1fr))] gap-4">
          {answer?.map(({ id, title, steps, changedAt, cover }) => (
            <li key={id}>
              <a
                href={`/guides/${id}`}
                onClick={followLink}
                className="block overflow-hidden rounded-[9px] border border-line bg-card hover:border-petrol"
              >
                <span className="block h-40 bg-desk p-2">
                  {cover && <Thumbnail shot={cover} />}
                </span>
                <span className="block p-3">
                  <span className="block truncate font-name text-base">{title}</span>
                  <span className="text-[13px] text-soft">
                    {steps === 1 ? '1 step' : `${steps} steps`} · {ago(changedAt)}
                  </span>
                </span>
              </a>
            </li>
          ))}
        </ul>
      </main>
    </>
  );
}
