import { useEffect, useMemo, useState } from 'react';
import { sourceLabels } from '@/core/contracts/provenance';
import { kindOf, markNames } from '@/core/marks/registry';
import { api } from '../../api/client';
import { useTags } from '../../tags/tagStore';
import type { Known } from './complete';

const marks = ['hidden', ...markNames.filter((name) => kindOf(name).group !== 'Hide')];

/** What can be asked for by name. */
export function useKnown(): Known {
  const tags = useTags((s) => s.tags);
  const [folders, setFolders] = useState<readonly string[]>([]);
  useEffect(() => {
    api.folders().then(
      (all) => setFolders(all.folders.map(({ name }) => name)),
      () => undefined,
    );
  }, []);
  return useMemo(
    () => ({
      tag: tags.map(({ name }) => name),
      from: Object.values(sourceLabels),
      kept: folders,
      with: marks,
    }),
    [tags, folders],
  );
}
