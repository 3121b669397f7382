import { create } from 'zustand';
import { useEffect } from 'react';
import type { FormatFacts, FormatName } from '@/core/contracts/format';
import { api } from '../api/client';

const useStore = create<{ formats: readonly FormatFacts[] }>(() => ({ formats: [] }));
let asked = false;

/** What every format can do, asked from the server once. */
export function useFormats(): readonly FormatFacts[] {
  const { formats } = useStore();
  useEffect(() => {
    if (asked) return;
    asked = true;
    api.formats().then(
      (all) => useStore.setState({ formats: all }),
      () => {
        asked = false;
      },
    );
  }, []);
  return formats;
}

export const factsFor = (
  formats: readonly FormatFacts[],
  name: FormatName,
): FormatFacts | undefined => formats.find((format) => format.name === name);
