import { Trash2 } from 'lucide-react';
import { useState, type KeyboardEvent } from 'react';
import type { Look } from '@/core/contracts/look';
import { giveKeysBack } from '../../keys/focus';
import { fixedKeys } from '../../keys/actions';
import { keyFromEvent } from '../../keys/press';
import { keyLabel } from '../../keys/useAction';
import { useKey } from '../../keys/useKey';
import { useLooks } from '../../looks/lookStore';
import { Button } from '../../ui/Button';
import { Confirm } from '../../ui/Confirm';
import { IconButton } from '../../ui/IconButton';
import {
  giveHere,
  keepAsLook,
  removeLook,
  renameLook,
  replaceLook,
  setLookKey,
} from '../actions/looks';
import { useDocument } from '../session/document';
import { useTool } from '../session/tool';

const fieldLook = 'h-8 min-w-0 grow rounded-[6px] border border-edge bg-card px-2';

/** The looks with their keys, and a new one of what is on the shot; while Look is in hand. */
export function LooksPanel() {
  const isShown = useTool((s) => s.tool === 'finish' && s.finishing === 'look');
  const looks = useLooks((s) => s.looks);
  const any = useDocument((s) => s.history.document.finish !== undefined);
  const [name, setName] = useState('');
  if (!isShown) return null;
  return (
    <section aria-label="Looks">
      <h2 className="mb-2 font-name text-base">Looks</h2>
      <ul className="rounded-[8px] border border-line bg-card">
        {looks.map((look) => (
          <Row key={look.id} look={look} any={any} />
        ))}
      </ul>
      <form
        className="mt-2 flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void keepAsLook(name).then((done) => done && setName(''));
        }}
      >
        <input
          aria-label="Name of a new look"
          placeholder="Name"
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
          className={fieldLook}
        />
        <Button type="submit" disabled={!any || name.trim() === ''}>
          Make a look
        </Button>
      </form>
      <p className="mt-1 text-[13px] text-soft">
        A look is all that Adjust and Surround do to this shot. Routines and folders can give it,
        and the Shelf to many at once.
      </p>
    </section>
  );
}

function Row({ look, any }: { look: Look; any: boolean }) {
  const [typed, setTyped] = useState<string | null>(null);
  const [going, setGoing] = useState(false);
  const rename = () => {
    const name = typed?.trim();
    setTyped(null);
    if (name && name !== look.name) void renameLook(look, name);
  };
  return (
    <li className="border-b border-line px-2 py-1.5 last:border-b-0">
      <div className="flex items-center gap-1">
        <input
          aria-label={`Name of the look ${look.name}`}
          value={typed ?? look.name}
          maxLength={80}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={rename}
          onKeyDown={(event) => {
            if (event.key === 'Escape') setTyped(null);
            if (event.key === 'Enter') event.currentTarget.blur();
          }}
          className={`${fieldLook} border-transparent bg-transparent font-bold hover:border-edge`}
        />
        <IconButton label={`Remove the look ${look.name}`} onClick={() => setGoing(true)}>
          <Trash2 size={16} strokeWidth={1.75} />
        </IconButton>
      </div>
      <div className="flex items-center gap-1 text-[13px]">
        <Button onClick={() => giveHere(look)}>Give</Button>
        <Button look="quiet" disabled={!any} onClick={() => void replaceLook(look)}>
          Set as here
        </Button>
        <LookKey look={look} />
      </div>
      <Confirm
        open={going}
        title={`Remove the look “${look.name}”?`}
        description="Shots that have it stay as they are. Folders and routines that give it give none any more."
        verb="Remove it"
        onYes={() => void removeLook(look)}
        onClose={() => setGoing(false)}
      />
    </li>
  );
}

/** The key that gives it: pressed in the field; Delete takes it away. */
function LookKey({ look }: { look: Look }) {
  const press = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Tab' || event.key === 'Escape') return;
    event.preventDefault();
    event.stopPropagation();
    const pressed = keyFromEvent(event.nativeEvent);
    const away = event.key === 'Backspace' || event.key === 'Delete';
    if (!away && (!pressed || fixedKeys.includes(pressed))) return;
    void setLookKey(look, away ? null : pressed);
    giveKeysBack(event.currentTarget);
  };
  return (
    <input
      readOnly
      aria-label={`Key of the look ${look.name}`}
      placeholder="Key"
      value={look.key ? keyLabel(look.key) : ''}
      onKeyDown={press}
      className="h-7 w-12 min-w-0 rounded-[6px] border border-edge bg-card px-1.5 text-center font-measure"
    />
  );
}

/** The keys of the looks, wherever a shot is open in Mark; Mark's own come first. */
export const LookKeys = () =>
  useLooks((s) => s.looks).map((look) => <GiveBy key={look.id} look={look} />);

function GiveBy({ look }: { look: Look }) {
  useKey(look.key ?? '', () => giveHere(look), { layer: 'routine' });
  return null;
}
