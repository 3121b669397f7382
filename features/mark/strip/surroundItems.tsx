import type { ReactNode } from 'react';
import { labelOf, partOrder, type PartName, type Surround } from '@/core/finish/surround/surround';
import { Button } from '../../ui/Button';
import type { Folding } from '../../ui/FoldedRow';
import { switchPart } from '../fit/surrounding';
import { useDocument } from '../session/document';
import { useTool } from '../session/tool';
import { update } from '../session/session';
import { Choice } from './controls';
import { partSettings } from './partSettings';

const NONE: Surround = {};

/** One part at a time of what is around the picture, with its settings. */
export function useSurroundItems(): Folding[] {
  const surround = useDocument((s) => s.history.document.finish?.surround) ?? NONE;
  const part = useTool((s) => s.part);
  return [
    {
      key: 'part',
      node: (
        <Choice
          bare
          label="Part"
          value={part}
          options={partOrder.map((name) => [name, optionOf(name, surround)] as const)}
          onChange={(name) => update({ part: name })}
        />
      ),
    },
    ...(surround[part] === undefined
      ? [
          {
            key: `add ${part}`,
            node: (
              <Button onClick={() => switchPart(part, true)}>
                {`Add ${labelOf(part).toLowerCase()}`}
              </Button>
            ),
          },
        ]
      : [
          ...settingsOf(part, surround),
          {
            key: `without ${part}`,
            node: (
              <Button look="quiet" onClick={() => switchPart(part, false)}>
                {`Without ${labelOf(part).toLowerCase()}`}
              </Button>
            ),
          },
        ]),
  ];
}

const optionOf = (name: PartName, surround: Surround): string =>
  surround[name] === undefined ? labelOf(name) : `${labelOf(name)}: on`;

export function settingsOf<N extends PartName>(name: N, surround: Surround): Folding[] {
  const value = surround[name];
  if (value === undefined) return [];
  const rows: [string, ReactNode][] = partSettings[name](value);
  return rows.map(([key, node]) => ({ key: `${name} ${key}`, node }));
}
