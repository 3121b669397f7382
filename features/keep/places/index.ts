import type { LucideIcon } from 'lucide-react';
import type { PlaceName } from '@/core/places/registry';
import type { Doers } from '@/core/take/run';
import type { Handed, PagePlace } from './contract';
import * as list from './list';

/** Every place there is, so that none is forgotten. */
const places: { [N in PlaceName]: PagePlace<N> } = list;

const does = Object.entries(places).map(([name, place]) => [name, place.do]);
// Each is found under its own name, which the type system cannot follow.
export const pageDoers = Object.fromEntries(does) as Doers<Handed>;

export const iconOf = (place: PlaceName): LucideIcon => places[place].icon;
