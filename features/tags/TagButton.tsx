import { Tag } from 'lucide-react';
import { IconButton } from '../ui/IconButton';
import { Pop } from '../ui/Pop';
import { TagsOf } from './TagsOf';

interface Props {
  shot: string;
  side: 'top' | 'bottom';
}

/** Opens the tags of a shot where there is no room for them, without leaving what one does. */
export function TagButton({ shot, side }: Props) {
  const button = (
    <IconButton label="Tag">
      <Tag size={16} strokeWidth={1.75} />
    </IconButton>
  );
  return (
    <Pop trigger={button} label="Tags" side={side} className="w-72">
      <TagsOf id={shot} />
    </Pop>
  );
}
