import { DndContext, PointerSensor, closestCenter, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { ArrowDown, ArrowUp, Heading, ImagePlus, Trash2 } from 'lucide-react';
import { memo } from 'react';
import type { GuideItem, GuideShot, GuideStep } from '@/core/contracts/guide';
import { spanOf } from '@/core/guide/numbering';
import { Thumbnail } from '../pictures/Thumbnail';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { Item, Row } from '../ui/Row';
import { classes } from '../ui/classes';
import { moveItem } from './edit';
import { useGuideItems, useGuideShots, useNumbers } from './useNumbers';

interface Props {
  chosen: string | null;
  onChoose: (id: string) => void;
  onRemove: (id: string) => void;
  onHeading: () => void;
  onShots: () => void;
}

/** So far a press is a press and no drag, pixels. */
const PRESS = 6;

/** The parts of a guide in their order: by a drag, by Alt and the arrow keys, or by its buttons. */
export function Steps({ chosen, onChoose, onRemove, onHeading, onShots }: Props) {
  const items = useGuideItems();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: PRESS } }),
  );
  const at = items.findIndex(({ id }) => id === chosen);
  const shots = useGuideShots();
  const numbers = useNumbers();
  return (
    <aside
      aria-label="Steps"
      className="flex w-[236px] shrink-0 flex-col border-r border-line bg-paper max-[1000px]:w-[190px]"
    >
      <div className="flex items-center gap-1 px-3 pt-2">
        <h2 className="grow font-name text-[15px]">Steps</h2>
        <IconButton
          label="Move up"
          disabled={at < 1}
          onClick={() => chosen && moveItem(chosen, at - 1)}
        >
          <ArrowUp size={16} strokeWidth={1.75} />
        </IconButton>
        <IconButton
          label="Move down"
          disabled={at < 0 || at === items.length - 1}
          onClick={() => chosen && moveItem(chosen, at + 1)}
        >
          <ArrowDown size={16} strokeWidth={1.75} />
        </IconButton>
        <IconButton
          label="Remove from the guide"
          disabled={at < 0}
          onClick={() => chosen && onRemove(chosen)}
        >
          <Trash2 size={16} strokeWidth={1.75} />
        </IconButton>
      </div>
      <div className="min-h-0 grow overflow-y-auto px-3 py-2">
        <DndContext
          sensors={sensors}
          collisionDetection={closestCenter}
          onDragEnd={({ active, over }) => {
            const to = items.findIndex(({ id }) => id === over?.id);
            if (to >= 0 && active.id !== over?.id) moveItem(String(active.id), to);
          }}
        >
          <SortableContext items={items.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
            <Row label="Steps" vertical className="flex flex-col gap-2">
              {items.map((item) => {
                const own = numbers.get(item.id);
                return (
                  <Entry
                    key={item.id}
                    item={item}
                    chosen={item.id === chosen}
                    shot={item.kind === 'step' ? shots.get(item.shot) : undefined}
                    span={own ? spanOf(own) : '–'}
                    onChoose={onChoose}
                  />
                );
              })}
            </Row>
          </SortableContext>
        </DndContext>
        <div className="mt-3 flex flex-col items-start gap-1">
          <Button look="quiet" icon={<Heading size={16} strokeWidth={1.75} />} onClick={onHeading}>
            Heading
          </Button>
          <Button look="quiet" icon={<ImagePlus size={16} strokeWidth={1.75} />} onClick={onShots}>
            Shots from the Shelf
          </Button>
        </div>
      </div>
    </aside>
  );
}

interface EntryProps {
  item: GuideItem;
  chosen: boolean;
  shot: GuideShot | undefined;
  span: string;
  onChoose: (id: string) => void;
}

/** Of a thousand parts only those are drawn anew that changed. */
const Entry = memo(function Entry({ item, chosen, shot, span, onChoose }: EntryProps) {
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({ id: item.id });
  const style = {
    transform: transform ? `translate(0, ${Math.round(transform.y)}px)` : undefined,
    transition,
  };
  return (
    <Item>
      <button
        ref={setNodeRef}
        type="button"
        aria-pressed={chosen}
        data-item={item.id}
        {...listeners}
        style={style}
        onClick={() => onChoose(item.id)}
        className={classes(
          'flex w-full items-start gap-2 rounded-[8px] border bg-card p-1.5 text-left',
          chosen ? 'border-petrol shadow-[inset_0_0_0_1px_var(--color-petrol)]' : 'border-line',
          isDragging && 'relative z-10 opacity-80 shadow-raised',
        )}
      >
        {item.kind === 'heading' ? (
          <span className="min-w-0 px-1 font-name text-[15px] break-words">
            {item.text || 'Heading'}
          </span>
        ) : (
          <StepEntry item={item} shot={shot} span={span} />
        )}
      </button>
    </Item>
  );
});

function StepEntry({ item, shot, span }: Pick<EntryProps, 'shot' | 'span'> & { item: GuideStep }) {
  const there = !shot || shot.state === 'there';
  return (
    <>
      <span className="w-7 shrink-0 pt-0.5 font-measure text-[13px]">{span}</span>
      <span className="h-12 w-16 shrink-0 overflow-hidden rounded-[5px] border border-line bg-desk">
        {there && <Thumbnail shot={{ id: item.shot, revision: shot?.revision ?? 0 }} />}
      </span>
      <span className={classes('line-clamp-2 min-w-0 grow break-words', !there && 'text-brick')}>
        {there
          ? item.heading || shot?.name || (shot?.clip ? 'Clip' : 'Picture')
          : shot.state === 'gone'
            ? 'Gone'
            : 'In the Bin'}
      </span>
    </>
  );
}
