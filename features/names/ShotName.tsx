import { FilePen } from 'lucide-react';
import { useEffect } from 'react';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { notify } from '../notices/noticeStore';
import { announce } from '../ui/announce';
import { Button } from '../ui/Button';
import { TitleField } from '../ui/TitleField';
import { onNamed, renameShot } from './rename';
import { useAnswer } from '../api/useAnswer';

interface Props {
  shot: { id: string; title: string };
  onChange: (title: string) => void;
}

/** The name of a shot, changed in place, and the kept files that are still called otherwise. */
export function ShotName({ shot: { id, title }, onChange }: Props) {
  const behind = useBehind(id, title);
  useEffect(
    () => onNamed((named) => named.id === id && named.title !== title && onChange(named.title)),
    [id, title, onChange],
  );
  const rename = (next: string) => {
    onChange(next);
    renameShot(id, next).then(
      () => {
        announce(`Renamed: ${next}`);
        // On a busy machine the server has the name only now.
        behind.look();
      },
      (error: unknown) => {
        onChange(title);
        notify({ key: `name ${id}`, tone: 'bad', title: 'Not renamed', lines: [messageOf(error)] });
      },
    );
  };
  return (
    <>
      <TitleField title={title} onChange={rename} />
      {behind.copies.length > 0 && (
        <Button
          look="quiet"
          className="shrink-0"
          icon={<FilePen size={16} strokeWidth={1.75} />}
          title={behind.copies.map((copy) => copy.path).join('\n')}
          onClick={() => void renameFiles(id, title).then(behind.look)}
        >
          {behind.copies.length === 1
            ? 'Rename the file, too'
            : `Rename ${behind.copies.length} files, too`}
        </Button>
      )}
    </>
  );
}

/** The kept files that bear an earlier name; looked up anew whenever the name changes. */
function useBehind(id: string, title: string) {
  // The server gets the name first, as a rule.
  const { answer, again } = useAnswer(() => api.copies(id), `${id} ${title}`, { after: 300 });
  return { copies: answer?.filter((copy) => copy.behind) ?? [], look: again };
}

/** The files follow the name; what could not be renamed is said. */
async function renameFiles(id: string, title: string): Promise<void> {
  const key = `files ${id}`;
  try {
    const { renamed, left } = await api.renameFiles(id, title);
    const done = renamed === 1 ? '1 file renamed' : `${renamed} files renamed`;
    notify({
      key,
      tone: left.length ? 'bad' : 'good',
      title: left.length ? `${done}, ${left.length} not` : done,
      lines: left.map(({ path, problem }) => `${path}: ${problem}`),
    });
  } catch (error) {
    notify({ key, tone: 'bad', title: 'The files were not renamed', lines: [messageOf(error)] });
  }
}
