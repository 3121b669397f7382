import { civilTime, formatCivil } from './civilTime';
import { safeName } from './safeName';

/** What the fields of a name pattern are filled from. */
export interface NameFacts {
  title: string;
  window: string;
  /** RFC 3339. */
  takenAt: string;
  /** IANA name. */
  timeZone: string;
  width: number;
  height: number;
  /** The number that {n} writes. */
  number: number;
}

export const nameFields = [
  'date',
  'time',
  'title',
  'window',
  'n',
  'size',
  'width',
  'height',
] as const;
type NameField = (typeof nameFields)[number];

export const firstPattern = '{title} {date} {time}';

const FIELD = /\{([^{}]*)\}/g;

interface Field {
  name: NameField;
  option: string;
}

function readField(inside: string): Field | null {
  const [name = '', ...rest] = inside.split(':');
  const known = nameFields.find((field) => field === name.trim());
  return known ? { name: known, option: rest.join(':') } : null;
}

/** What is wrong with a pattern, in plain words; null when nothing is. */
export function patternProblem(pattern: string): string | null {
  for (const [, inside = ''] of pattern.matchAll(FIELD)) {
    const field = readField(inside);
    if (!field)
      return `There is no field {${inside}}. Fields are ${nameFields.map((f) => `{${f}}`).join(', ')}.`;
    if (field.name === 'n' && field.option && !/^[1-9]$/.test(field.option)) {
      return 'The number of digits in {n:…} must be from 1 to 9.';
    }
  }
  for (const [, inside = ''] of pattern.matchAll(FIELD)) {
    const field = readField(inside);
    const words = field?.name === 'title' || field?.name === 'window';
    if (
      words &&
      field.option &&
      !field.option.split(',').every((way) => ways.includes(way.trim()))
    ) {
      return `{${field.name}:…} can be followed by lower, upper, - or _, with commas between.`;
    }
  }
  if (/[{}]/.test(pattern.replace(FIELD, ''))) return 'A brace { or } has no partner.';
  const parts = pattern.split('/').map((part) => part.trim());
  if (parts.includes('..') || parts.includes('.'))
    return 'A part of the name cannot be “.” or “..”: copies stay in their folder.';
  return pattern.trim() === '' ? 'The pattern is empty.' : null;
}

/** True when names made by the pattern count on by themselves. */
export const hasNumber = (pattern: string): boolean =>
  [...pattern.matchAll(FIELD)].some(([, inside = '']) => readField(inside)?.name === 'n');

/**
 * The name, without extension, that a pattern gives; safe for any file system. A field without
 * a value leaves nothing, and the spaces and hyphens around it close up.
 */
export const nameFrom = (pattern: string, facts: NameFacts): string =>
  pathFrom(pattern, facts).join('/');

/**
 * The subfolders and, last, the name without extension that a pattern gives. A slash in the pattern
 * parts folders; one in a field's value does not.
 */
export function pathFrom(pattern: string, facts: NameFacts): string[] {
  const parts = pattern.split(/\/(?![^{]*\})/).filter((part) => part.trim() !== '');
  return parts.map((part) => partFrom(part, facts));
}

function filled(pattern: string, facts: NameFacts): string {
  const text = pattern.replace(FIELD, (whole, inside: string) => {
    const field = readField(inside);
    return field ? valueOf(field, facts) : whole;
  });
  return text.replace(/\s{2,}/g, ' ').replace(/(\s-)+\s(?=-)/g, ' ');
}

const partFrom = (pattern: string, facts: NameFacts): string => safeName(filled(pattern, facts));

/** The name of a shot that a pattern gives: one line, which need not be a file's; may be empty. */
export const titleFrom = (pattern: string, facts: NameFacts, most: number): string =>
  filled(pattern, facts).trim().slice(0, most).toWellFormed();

function valueOf(field: Field, facts: NameFacts): string {
  switch (field.name) {
    case 'date':
      return formatCivil(civilTime(facts.takenAt, facts.timeZone), field.option || 'yyyy-MM-dd');
    case 'time':
      return formatCivil(civilTime(facts.takenAt, facts.timeZone), field.option || 'HH-mm-ss');
    case 'title':
      return written(facts.title, field.option);
    case 'window':
      return written(facts.window, field.option);
    case 'n':
      return String(facts.number).padStart(Number(field.option) || 1, '0');
    case 'size':
      return `${facts.width}x${facts.height}`;
    case 'width':
      return String(facts.width);
    case 'height':
      return String(facts.height);
  }
}

/** How words may be written: small or capital letters, and what stands for a space. */
const ways = ['lower', 'upper', '-', '_'];

function written(words: string, option: string): string {
  return option.split(',').reduce((text, way) => {
    const wish = way.trim();
    if (wish === 'lower') return text.toLowerCase();
    if (wish === 'upper') return text.toUpperCase();
    return wish === '-' || wish === '_' ? text.trim().replace(/\s+/g, wish) : text;
  }, words);
}
