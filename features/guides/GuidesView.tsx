import { BookOpen } from 'lucide-react';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { notify } from '../notices/noticeStore';
import { useAnswer } from '../api/useAnswer';
import { Thumbnail } from '../pictures/Thumbnail';
import { followLink, navigate } from '../thread/navigate';
import { ListPage } from '../thread/ListPage';
import { ago } from '../ui/format';

const icon = <BookOpen size={18} strokeWidth={1.75} />;

/** All guides, the last changed first. */
export function GuidesView() {
  const { answer, problem, again } = useAnswer(() => api.guides(), 'guides');
  const begin = async () => {
    try {
      const { id } = await api.addGuide({ shots: [] });
      navigate(`/guides/${id}`, 'push', '?new');
    } catch (error) {
      notify({ key: 'guide', tone: 'bad', title: 'No guide made', lines: [messageOf(error)] });
    }
  };
  return (
    <ListPage
      title="Guides"
      make={{ label: 'New guide', icon, act: () => void begin() }}
      problem={problem}
      again={again}
    >
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
              <span className="block h-40 bg-desk p-2">{cover && <Thumbnail shot={cover} />}</span>
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
    </ListPage>
  );
}
