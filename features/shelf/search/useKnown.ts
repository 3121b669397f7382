import { useMemo } from 'react';
import { sourceLabels } from '@/core/contracts/provenance';
import { kindOf, markNames } from '@/core/marks/registry';
import { useTags } from '../../tags/tagStore';
import { useFolders } from '../../take/useFolders';
import type { Known } from './complete';

const marks = ['hidden', ...markNames.filter((name) => kindOf(name).group !== 'Hide')];

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
