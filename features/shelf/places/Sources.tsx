import { sourceLabels, sourceNames } from '@/core/contracts/provenance';
import { Row } from '../../ui/Row';
import { useAsked } from '../search/asked';
import { Place, PlacesHeading } from './Place';

/** Where frames come from, each as a search. */
export function Sources() {
  const text = useAsked((s) => s.text.trim());
  return (
    <section aria-labelledby="places-sources">
      <PlacesHeading>
        <span id="places-sources">From</span>
      </PlacesHeading>
      <Row label="Sources" vertical className="flex flex-col gap-0.5">
        {sourceNames.map((name) => {
          const query = `from:${name}`;
          return (
            <Place
              key={name}
              label={sourceLabels[name]}
              to={{ text: query, bin: false }}
              current={text === query}
              count={null}
            />
          );
        })}
      </Row>
    </section>
  );
}
