import { z } from 'zod';
import {
  factsRuleSchema,
  firstFacts,
  formatNames,
  optionsSchema,
  quality,
  sizeWishSchema,
} from './format';
import { namePattern } from './namePattern';

/** How a place wants what is kept in it: every folder has its own, here and on other machines. */
export const rulesShape = {
  format: z.enum(formatNames),
  quality,
  /** The format's own options. */
  options: optionsSchema,
  /** The size every copy is brought to; empty for the picture's own. */
  size: sizeWishSchema,
  /** Copies have at most so many bytes; null for any. */
  maxBytes: z.int().min(100).nullable(),
  facts: factsRuleSchema,
  pattern: namePattern,
  /** A look that every copy gets; null leaves each as it is. */
  look: z.uuid().nullable().default(null),
};
export const rulesSchema = z.object(rulesShape);
export type Rules = z.output<typeof rulesSchema>;

export const firstRules: Rules = {
  format: 'png',
  quality: 85,
  options: {},
  size: {},
  maxBytes: null,
  facts: firstFacts,
  pattern: '{title} {date} {time}',
  look: null,
};

/** The rules of a new place: what is not said begins as usual. */
export const rulesInput = {
  format: rulesShape.format.default(firstRules.format),
  quality: rulesShape.quality.default(firstRules.quality),
  options: rulesShape.options.default(firstRules.options),
  size: rulesShape.size.default(firstRules.size),
  maxBytes: rulesShape.maxBytes.default(firstRules.maxBytes),
  facts: rulesShape.facts.default(firstRules.facts),
  pattern: rulesShape.pattern.default(firstRules.pattern),
  look: rulesShape.look,
};

/** What is changed of the rules of a place. */
export const rulesPatch = rulesSchema.extend({ look: z.uuid().nullable() }).partial().shape;
