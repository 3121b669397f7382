import { useId } from 'react';
import { limits } from '@/core/values/limits';
import { giveKeysBack } from '../../keys/focus';
import { changeDocument } from '../session/changes';
import { useDocument } from '../session/document';

/** What is to be seen, in words, for those who cannot see it; it goes along with what is kept. */
export function Description() {
  const words = useDocument((s) => s.history.document.description ?? '');
  const id = useId();
  return (
    <section aria-label="Description">
      <h2 className="mb-1 font-name text-base">
        <label htmlFor={id}>Description</label>
      </h2>
      <textarea
        id={id}
        value={words}
        maxLength={limits.descriptionLength}
        rows={3}
        placeholder="What is to be seen, for someone who cannot see it"
        onKeyDown={(event) => event.key === 'Escape' && giveKeysBack(event.currentTarget)}
        onChange={(event) =>
          changeDocument(
            'Change the description',
            (draft) => {
              if (event.target.value) draft.description = event.target.value;
              else delete draft.description;
            },
            'description',
          )
        }
        className="w-full resize-y rounded-[6px] border border-edge bg-card px-2 py-1"
      />
    </section>
  );
}
