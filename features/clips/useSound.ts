import { useMemo, useState } from 'react';
import type { Clip } from '@/core/contracts/clip';
import { hiddenStretches } from '@/core/document/silent';
import { isIn } from '@/core/values/stretch';

/** What is heard while a clip is played: nothing while something is hidden, as in what is kept. */
export function useSound({ sound, document, times }: Clip, picture: number) {
  const [on, setOn] = useState(true);
  const hidden = useMemo(() => hiddenStretches(document, times.length), [document, times]);
  const isHidden = hidden.some((stretch) => isIn(stretch, picture));
  return {
    muted: !sound || !on || isHidden,
    /** Absent where there is none. */
    control: sound ? { on, isHidden, toggle: () => setOn(!on) } : null,
  };
}
