import { useState } from 'react';
import type { SavedSearch } from '@/core/contracts/search';
import { messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { notify } from '../../notices/noticeStore';
import { announce } from '../../ui/announce';
import { formatCount } from '../../ui/format';
import { Row } from '../../ui/Row';
import { Rename } from '../places/Rename';
import { Place, PlacesHeading } from '../places/Place';
import { MenuItem, WithMore } from '../places/Menu';
import { useAsked } from '../search/asked';
import { readSearches, useSearches } from './searchStore';

/** The saved searches, each with how many shots it finds now. */
export function SavedSearches() {
  const searches = useSearches((s) => s.searches);
  if (searches.length === 0) return null;
  return (
    <section aria-labelledby="places-searches">
      <PlacesHeading>
        <span id="places-searches">Saved searches</span>
      </PlacesHeading>
      <Row label="Saved searches" vertical className="flex flex-col gap-0.5">
        {searches.map((search) => (
          <Saved key={search.id} search={search} />
        ))}
      </Row>
    </section>
  );
}

function Saved({ search }: { search: SavedSearch }) {
  const { id, name, query, order, count, more } = search;
  const { text, bin } = useAsked();
  const [renaming, setRenaming] = useState(false);
  const act = async (work: Promise<unknown>, done: string) => {
    try {
      await work;
      announce(done);
    } catch (error) {
      notify({ key: 'search', tone: 'bad', title: 'Not changed', lines: [messageOf(error)] });
    }
    await readSearches();
  };
  const place = (
    <Place
      label={name}
      to={{ text: query, order, bin: false }}
      current={!bin && text === query}
      count={more ? `${formatCount(count)}+` : formatCount(count)}
    />
  );
  return (
    <>
      <WithMore label={`More about the search ${name}`} place={place}>
        <MenuItem onSelect={() => setRenaming(true)}>Rename</MenuItem>
        {text.trim() !== '' && text !== query && (
          <MenuItem
            onSelect={() =>
              void act(
                api.changeSearch(id, { query: text.trimStart() }),
                `${name} asks for this now`,
              )
            }
          >
            Let it ask for what is in the field
          </MenuItem>
        )}
        <MenuItem onSelect={() => void act(api.removeSearch(id), `Removed: ${name}`)}>
          Remove
        </MenuItem>
      </WithMore>
      <Rename
        open={renaming}
        title="Rename this search"
        name={name}
        onName={(next) => void act(api.changeSearch(id, { name: next }), `Renamed: ${next}`)}
        onClose={() => setRenaming(false)}
      />
    </>
  );
}
