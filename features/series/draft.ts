import { deepEqual } from 'fast-equals';
import { addressProblem, pageSchema, type WayPage } from '@/core/contracts/page';
import {
  FIRST_SERIES_PATTERN,
  firstStopAt,
  isOfPage,
  seriesInputSchema,
  type OnlyChanged,
  type Series,
  type SeriesInput,
  type SeriesKind,
  type SeriesPatch,
  type SeriesWhat,
} from '@/core/contracts/series';
import type { Settings } from '@/core/contracts/settings';
import type { Rect } from '@/core/geometry/rect';
import { patternProblem } from '@/core/naming/pattern';
import type { ThenStep } from '@/core/places/registry';
import { unitOf } from '@/core/series/words';
import { readMoment, writtenMoment, zoneOf } from '@/core/series/zone';

/** A series as its form holds it. */
export interface Draft {
  name: string;
  source: SeriesWhat['source'];
  kind: SeriesKind;
  display: string;
  window: string;
  region: Rect;
  page: WayPage;
  how: 'every' | 'at';
  count: number;
  /** Seconds. */
  unit: number;
  between: { from: string; until: string } | null;
  /** Times of the day as they are typed. */
  at: string;
  days: readonly number[];
  zone: string;
  /** As 2026-03-29T14:30; empty: at once, and never. */
  begins: string;
  ends: string;
  onlyChanged: OnlyChanged | null;
  then: readonly ThenStep[];
  pattern: string;
  stopAt: { shots: number; megabytes: number };
}

const NO_REGION: Rect = { x: 0, y: 0, width: 400, height: 300 };
const everyDay = [0, 1, 2, 3, 4, 5, 6];

/** A new one, as one takes now. */
export function firstDraft(
  { way, regions }: Settings,
  source: Draft['source'],
  zone: string,
): Draft {
  return {
    ...{ name: '', source, kind: 'full', display: 'all', window: '', page: way.page },
    region: regions[source]?.region ?? NO_REGION,
    ...{ how: 'every', count: 15, unit: 60, between: null, at: '09:00' },
    ...{ days: everyDay, zone, begins: '', ends: '', onlyChanged: null, then: [] },
    ...{ pattern: FIRST_SERIES_PATTERN, stopAt: firstStopAt },
  };
}

/** One that is there, to be changed. */
export function draftOf(series: Series, first: Draft): Draft {
  const { what, times } = series;
  const { when, zone } = times;
  const unit = 'every' in when ? unitOf(when.every) : null;
  return {
    ...first,
    ...{ name: series.name, onlyChanged: series.onlyChanged, then: series.then },
    ...{ pattern: series.pattern, stopAt: series.stopAt, days: times.days, zone },
    ...(what.source === 'web'
      ? { source: 'web', page: { ...what.page } }
      : { ...what, region: what.region ?? first.region }),
    begins: writtenMoment(Date.parse(times.begins), zone),
    ends: times.ends === null ? '' : writtenMoment(Date.parse(times.ends), zone),
    ...('every' in when
      ? { how: 'every', between: when.between, count: unit?.count ?? 1, unit: unit?.seconds ?? 60 }
      : { how: 'at', at: when.at.join(', ') }),
  };
}

const TIME = /^([01]?\d|2[0-3])[:.]([0-5]\d)$/;

/** @throws Error in words for the person */
function readTimes(written: string): string[] {
  const parts = written.split(/[\s,;]+/).filter(Boolean);
  const times = parts.map((part) => {
    const [, hour, minute] = TIME.exec(part) ?? [];
    if (!hour || !minute)
      throw new Error(`“${part}” is no time. Write times such as 09:30, 14:00.`);
    return `${hour.padStart(2, '0')}:${minute}`;
  });
  if (times.length === 0) throw new Error('Write at least one time, such as 09:30.');
  return [...new Set(times)].sort();
}

function whatOf(draft: Draft): SeriesInput['what'] {
  const { source } = draft;
  if (isOfPage(source)) {
    const kind = draft.kind === 'region' ? 'region' : 'full';
    return { source, kind, region: kind === 'region' ? draft.region : null };
  }
  if (source !== 'web') {
    const { kind, display, window, region } = draft;
    return { source, kind, display, window, region: kind === 'region' ? region : null };
  }
  const problem = addressProblem(draft.page.address);
  if (problem) throw new Error(problem);
  return { source, page: pageSchema.parse(draft.page) };
}

/** When it takes, as far as that is said. @throws Error in words for the person */
export function timesOfDraft(draft: Draft): SeriesInput['times'] {
  const { how, count, unit, between, at, days, zone, begins, ends } = draft;
  if (days.length === 0) throw new Error('Choose at least one day.');
  const read = (written: string) => {
    const moment = readMoment(written, zoneOf(zone));
    return moment === null ? undefined : new Date(moment).toISOString();
  };
  const first = read(begins);
  return {
    ...{ zone, days: [...days], ends: read(ends) ?? null, ...(first && { begins: first }) },
    when: how === 'at' ? { at: readTimes(at) } : { every: count * unit, between },
  };
}

/**
 * What of a series was changed in its form; what was not, somebody may change elsewhere meanwhile.
 * @throws Error in words for the person
 */
export function patchOf({ times: stored }: Series, before: Draft, draft: Draft): SeriesPatch {
  const [was, { times, ...rest }] = [inputOf(before), inputOf(draft)];
  const changed = Object.fromEntries(
    Object.entries(rest).filter(
      ([name, value]) => !deepEqual(value, was[name as keyof typeof rest]),
    ),
  );
  if (deepEqual(times, was.times)) return changed;
  // The field shows no seconds: where it was not touched, they stay.
  const begins = draft.begins === before.begins ? stored.begins : times.begins;
  const ends = draft.ends === before.ends ? stored.ends : times.ends;
  return { ...changed, times: { ...stored, ...times, begins: begins ?? stored.begins, ends } };
}

/** What is asked of the server. @throws Error in words for the person */
export function inputOf(draft: Draft): SeriesInput {
  const name = draft.name.trim();
  if (name === '') throw new Error('Give the series a name.');
  const problem = patternProblem(draft.pattern);
  if (problem) throw new Error(problem);
  const { onlyChanged, then, pattern, stopAt } = draft;
  const input = {
    ...{ name, what: whatOf(draft), times: timesOfDraft(draft), onlyChanged },
    ...{ then: [...then], pattern, stopAt },
  };
  const [wrong] = seriesInputSchema.safeParse(input).error?.issues ?? [];
  if (wrong) throw new Error(`${wrong.path.join(' ')}: ${wrong.message}`);
  return input;
}
