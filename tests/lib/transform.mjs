import swc from '@swc/jest';

/**
 * Jest runs modules in a context in which each look at a global costs as much as a hundred
 * additions; computation asks for this one in its innermost loops. A name of the module's own costs
 * nothing. On the first line, so that lines keep their numbers.
 */
const OWN = 'const Math = globalThis.Math; ';

export default {
  createTransformer(options) {
    const { process, processAsync, getCacheKey } = swc.createTransformer(options);
    return {
      canInstrument: false,
      process: (source, ...more) => process(OWN + source, ...more),
      processAsync: (source, ...more) => processAsync(OWN + source, ...more),
      getCacheKey: (source, ...more) => getCacheKey(OWN + source, ...more),
    };
  },
};
