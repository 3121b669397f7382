import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { markColours } from '@/core/colour/markColours';
import { limits } from '@/core/values/limits';
import type { Tag, TagPatch } from '@/core/contracts/search';
import { fold } from '@/core/search/fold';
import { messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { notify } from '../../notices/noticeStore';
import { announce } from '../../ui/announce';
import { Confirm } from '../../ui/Confirm';
import { formatCount } from '../../ui/format';
import { Row } from '../../ui/Row';
import { MenuItem, WithMore } from './Menu';
import { Place, PlacesHeading } from './Place';
import { Rename } from './Rename';
import { ask, useAsked } from '../search/asked';
import { readTags, useTags } from '../../tags/tagStore';

/** More tags than these are found by typing. */
const SHOWN = 40;

/** How a tag is asked for. */
export const tagQuery = (name: string): string =>
  /\s/.test(name) ? `tag:"${name}"` : `tag:${name}`;

/** All tags with their counts; the most used ones where there are many. */
export function Tags() {
  const tags = useTags((s) => s.tags);
  if (tags.length === 0) return null;
  const most = [...tags].sort((a, b) => b.shots - a.shots).slice(0, SHOWN);
  const shown = tags.length > SHOWN ? tags.filter((tag) => most.includes(tag)) : tags;
  return (
    <section aria-labelledby="places-tags">
      <PlacesHeading>
        <span id="places-tags">Tags</span>
      </PlacesHeading>
      <Row label="Tags" vertical className="flex flex-col gap-0.5">
        {shown.map((tag) => (
          <OneTag key={tag.id} tag={tag} />
        ))}
      </Row>
      {tags.length > SHOWN && (
        <p className="px-2 pt-1 text-[13px] text-soft">
          {tags.length - SHOWN} more: type tag: in the field
        </p>
      )}
    </section>
  );
}

/** A square of the tag's colour. */
export const Dot = ({ colour }: { colour: string }) => (
  <span
    aria-hidden
    className="size-3 shrink-0 rounded-[3px] border border-edge"
    style={{ background: colour }}
  />
);

function OneTag({ tag }: { tag: Tag }) {
  const { text, bin } = useAsked();
  const [renaming, setRenaming] = useState(false);
  const [merging, setMerging] = useState<string | null>(null);
  const [removing, setRemoving] = useState(false);
  const query = tagQuery(tag.name);
  const current = !bin && text.trim() === query;
  /** @returns whether it was done */
  const act = async (work: Promise<unknown>, done: string): Promise<boolean> => {
    let isDone = false;
    try {
      await work;
      isDone = true;
      announce(done);
    } catch (error) {
      notify({ key: 'tag', tone: 'bad', title: 'Not changed', lines: [messageOf(error)] });
    }
    await readTags();
    return isDone;
  };
  const change = (patch: TagPatch, done: string) => act(api.changeTag(tag.id, patch), done);
  const rename = (name: string) => {
    const other = useTags.getState().tags.find((one) => fold(one.name) === fold(name));
    if (other && other.id !== tag.id) setMerging(name);
    else {
      // Asked for by its new name once it has that.
      void change({ name }, `Renamed: ${name}`).then(
        (isDone) => isDone && current && ask({ text: tagQuery(name) }),
      );
    }
  };
  const place = (
    <Place
      label={tag.name}
      icon={<Dot colour={tag.colour} />}
      to={{ text: query, bin: false }}
      current={current}
      count={formatCount(tag.shots)}
    />
  );
  return (
    <>
      <WithMore label={`More about the tag ${tag.name}`} place={place}>
        <MenuItem onSelect={() => setRenaming(true)}>Rename</MenuItem>
        <DropdownMenu.Group aria-label="Colour" className="flex gap-1 px-2 py-1">
          {markColours.map(({ name, hex }) => (
            <DropdownMenu.Item
              key={hex}
              aria-label={name}
              title={name}
              onSelect={() => void change({ colour: hex }, `${tag.name}: ${name}`)}
              className="size-5 rounded-[4px] border border-edge outline-none data-[highlighted]:ring-2 data-[highlighted]:ring-petrol"
              style={{ background: hex }}
            />
          ))}
        </DropdownMenu.Group>
        <MenuItem onSelect={() => setRemoving(true)}>Remove from all shots</MenuItem>
      </WithMore>
      <Rename
        open={renaming}
        title="Rename this tag"
        name={tag.name}
        most={limits.tagLength}
        onName={rename}
        onClose={() => setRenaming(false)}
      />
      <Confirm
        open={merging !== null}
        title="Make both one tag?"
        description={`There is a tag “${merging ?? ''}” already. Its shots and those of “${tag.name}” will have that one tag.`}
        verb="Make them one"
        onYes={() => void change({ name: merging ?? tag.name, merge: true }, `One tag: ${merging}`)}
        onClose={() => setMerging(null)}
      />
      <Confirm
        open={removing}
        title={`Remove the tag “${tag.name}”?`}
        description="It is taken from all its shots. The shots stay."
        verb="Remove the tag"
        onYes={() => void act(api.removeTag(tag.id), `Removed: ${tag.name}`)}
        onClose={() => setRemoving(false)}
      />
    </>
  );
}
