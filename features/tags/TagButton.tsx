import { Tag } from 'lucide-react';
import { Popover } from 'radix-ui';
import { IconButton } from '../ui/IconButton';
import { TagsOf } from './TagsOf';

interface Props {
  shot: string;
  side: 'top' | 'bottom';
}

/** Opens the tags of a shot where there is no room for them, without leaving what one does. */
export function TagButton({ shot, side }: Props) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <IconButton label="Tag">
          <Tag size={16} strokeWidth={1.75} />
        </IconButton>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side={side}
          sideOffset={8}
          collisionPadding={12}
          aria-label="Tags"
          data-takes-keys
          className="z-50 w-72 rounded-[9px] border border-edge bg-card p-3 shadow-raised"
        >
          <TagsOf id={shot} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
