import { useMemo } from 'react';
import { sourceLabels } from '@/core/contracts/provenance';
import { hides, markNames } from '@/core/marks/registry';
import { useTags } from '../../tags/tagStore';
import { useFolders } from '../../keep/useFolders';
import type { Known } from './complete';

const marks = ['hidden', ...markNames.filter((name) => !hides(name))];

/** What can be asked for by name. */
export function useKnown(): Known {
  const tags = useTags((s) => s.tags);
  const folders = useFolders();
  return useMemo(
    () => ({
      tag: tags.map(({ name }) => name),
      from: Object.values(sourceLabels),
      kept: (folders ?? []).map(({ name }) => name),
      with: marks,
    }),
    [tags, folders],
  );
}
