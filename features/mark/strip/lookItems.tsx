import { useEffect } from 'react';
import { readLooks, useLooks } from '../../looks/lookStore';
import { Button } from '../../ui/Button';
import type { Folding } from '../../ui/FoldedRow';
import { Key } from '../../ui/Key';
import { keyLabel } from '../../keys/useAction';
import { giveHere, takeLookOff } from '../actions/looks';
import { useDocument } from '../session/document';

/** Named sets of all that can be done to the picture as a whole: one click gives one. */
export function useLookItems(): Folding[] {
  const looks = useLooks((s) => s.looks);
  const any = useDocument((s) => s.history.document.finish !== undefined);
  useEffect(() => void readLooks().catch(() => undefined), []);
  return [
    ...looks.map((look) => ({
      key: look.id,
      node: (
        <Button className="rounded-full" onClick={() => giveHere(look)}>
          {look.name}
          {look.key && <Key>{keyLabel(look.key)}</Key>}
        </Button>
      ),
    })),
    ...(any
      ? [
          {
            key: 'no look',
            node: (
              <Button look="quiet" onClick={takeLookOff}>
                No look
              </Button>
            ),
          },
        ]
      : []),
  ];
}
