/** Who says how a picture looks: its own maker's library, or a picture beside it in the suite. */
type Truth = 'libpng' | 'libtiff' | 'beside' | 'nobody';

/** A folder of pictures that somebody else tests a decoder with. */
export interface Suite {
  /** The Debian source package, as bin/lib/suites.mjs fetches it. */
  from: string;
  folder: string;
  files: RegExp;
  /** Looked at by every run of the tests; the others by `npm run suites`. */
  short: boolean;
  truth: Truth;
  /** The picture beside it that it looks like, for those that have one. */
  beside?: (name: string) => string | undefined;
  /** Those that are refused, with the code; all others are read. */
  refused?: Readonly<Record<string, string>>;
  /** Those that are read otherwise than the library reads them, and why that is right. */
  otherwise?: Readonly<Record<string, string>>;
}

/** Without those of 16 bits, whose pictures beside them never reach white. */
const bmpsuite: Record<string, string> = {
  '01bg': '01bg',
  '01bw': '01bw',
  '01p1': '01p1',
  '01wb': '01bw',
  '04': '04',
  '04p4': '04p4',
  '04rle': '04',
  '24': '24',
  '32bf': '24',
  '32def': '24',
  '08w124': '08w124',
  '08w125': '08w125',
  '08w126': '08w126',
  '08p64': '08p64',
};

const later: Record<string, string> = {
  ...{ pal1wb: 'pal1', pal4rle: 'pal4', rgb24pal: 'rgb24', rgb32: 'rgb24', rgb32bf: 'rgb24' },
  ...{ 'pal8-0': 'pal8', pal8os2: 'pal8', pal8rle: 'pal8', pal8topdown: 'pal8', pal8v4: 'pal8' },
  ...{ pal8v5: 'pal8', 'rgb16-565pal': 'rgb16-565', pal8offs: 'pal8' },
  ...{ pal8os2sp: 'pal8', pal8os2v2: 'pal8', 'pal8os2v2-16': 'pal8', pal8oversizepal: 'pal8' },
  ...{ rgb24largepal: 'rgb24', rgb24prof: 'rgb24', rgb24lprof: 'rgb24' },
  ...{ 'rgb32-111110': 'rgb24', 'rgb32bf-xbgr': 'rgb24', rgba32abf: 'rgba32' },
  ...{ rgb32fakealpha: 'fakealpha', pal4rletrns: 'pal4rletrns-0', pal8rletrns: 'pal8rletrns-0' },
};
const laterBeside = (name: string): string | undefined => {
  const stem = name.replace('.bmp', '');
  // The picture beside this one is stretched to square pixels; one packs a whole file of another kind.
  if (['pal8nonsquare', 'rgb24jpeg', 'rgb24png'].includes(stem)) return undefined;
  return `../html/${later[stem] ?? stem}.png`;
};

const ROWS = 'libpng 1.6.39 mixes the rows of 16 bits that come interlaced in its simple reading';
const LINEAR = 'libpng keeps 11 of the 16 bits while it changes the gamma';
const PROFILE = 'its profile is heeded, which the library leaves to others';
const TURNED = 'the library mirrors, and never turns by a quarter';

const OPACITY = 'its opacity is heeded; the library leaves it out, or puts it into the grey';

const refusedOf = (code: string, names: readonly string[]): Record<string, string> =>
  Object.fromEntries(names.map((name) => [name, code]));

export const suites: readonly Suite[] = [
  {
    from: 'libpng',
    folder: 'contrib/pngsuite',
    files: /\.png$/,
    short: true,
    truth: 'libpng',
    otherwise: {
      ...{ 'ibasn0g16.png': ROWS, 'ibasn2c16.png': ROWS, 'ibasn4a16.png': ROWS },
      ...{ 'ibasn6a16.png': ROWS, 'iftbwn0g16.png': ROWS },
    },
  },
  {
    from: 'libpng',
    folder: 'contrib/pngsuite/interlaced',
    files: /\.png$/,
    short: true,
    truth: 'libpng',
  },
  {
    from: 'libpng',
    folder: 'contrib/testpngs',
    files: /(gray|rgb-alpha|palette)-(4|16|8)(-1\.8|-linear|-sRGB)?\.png$/,
    short: true,
    truth: 'libpng',
    otherwise: {
      'gray-16-linear.png': LINEAR,
      'rgb-alpha-16-linear.png': LINEAR,
    },
  },
  {
    from: 'libpng',
    folder: 'contrib/testpngs',
    files: /\.png$/,
    short: false,
    truth: 'libpng',
    otherwise: {
      ...{ 'gray-16-linear-tRNS.png': LINEAR, 'gray-16-linear.png': LINEAR },
      ...{ 'rgb-16-linear-tRNS.png': LINEAR, 'rgb-16-linear.png': LINEAR },
      ...{ 'gray-alpha-16-linear.png': LINEAR, 'rgb-alpha-16-linear.png': LINEAR },
    },
  },
  {
    from: 'libpng',
    folder: 'contrib/testpngs/crashers',
    files: /\.png$/,
    short: true,
    truth: 'nobody',
  },
  {
    from: 'libtiff',
    folder: 'test/images',
    files: /\.tiff?$/,
    short: true,
    truth: 'libtiff',
    refused: {
      'minisblack-2c-8b-alpha.tiff': 'not-read',
      'ojpeg_chewey_subsamp21_multi_strip.tiff': 'not-read',
      'ojpeg_single_strip_no_rowsperstrip.tiff': 'not-read',
      'ojpeg_zackthecat_subsamp22_single_strip.tiff': 'not-read',
      'test_float64_predictor2_be_lzw.tif': 'not-read',
      'test_float64_predictor2_le_lzw.tif': 'not-read',
    },
  },
  {
    from: 'netsurf',
    folder: 'libnsbmp/test/bmpsuite',
    files: /\.bmp$/,
    short: true,
    truth: 'beside',
    beside: (name) => {
      const like = bmpsuite[name.slice(1, -4)] ?? (name.startsWith('g08') ? '08' : undefined);
      return like && `png/${like}.png`;
    },
    refused: { 'rleof.bmp': 'damaged' },
  },
  ...['g', 'q'].map((folder) => ({
    from: 'pillow',
    folder: `Tests/images/bmp/${folder}`,
    files: /\.bmp$/,
    short: false,
    truth: 'beside' as const,
    beside: laterBeside,
    refused: { 'rgb24jpeg.bmp': 'not-read', 'rgb24png.bmp': 'not-read' },
  })),
  ...['afl-bmp', 'ns-afl-bmp'].map((folder) => ({
    from: 'netsurf',
    folder: `libnsbmp/test/${folder}`,
    files: /\.bmp$/,
    short: false,
    truth: 'nobody' as const,
  })),
  {
    from: 'pillow',
    folder: 'Tests/images/bmp/b',
    files: /\.bmp$/,
    short: false,
    truth: 'nobody',
  },
  {
    from: 'netsurf',
    folder: 'libnsgif/test/ns-afl-gif',
    files: /\.gif$/,
    short: false,
    truth: 'nobody',
  },
  {
    from: 'pillow',
    folder: 'Tests/images',
    files: /\.(jpe?g|gif|webp|avif)$/,
    short: false,
    truth: 'nobody',
  },
  {
    from: 'pillow',
    folder: 'Tests/images',
    files: /\.png$/,
    short: false,
    truth: 'libpng',
    otherwise: { 'xmp_tags_orientation.png': PROFILE },
  },
  {
    from: 'pillow',
    folder: 'Tests/images',
    files: /\.tiff?$/,
    short: false,
    truth: 'libtiff',
    refused: refusedOf('not-read', [
      ...['hopper.Lab.tif', 'lab.tif', 'lab-green.tif', 'lab-red.tif', 'hopper_bigtiff.tif'],
      ...['hopper_lzma.tif', 'old-style-jpeg-compression.tif'],
      'old-style-jpeg-compression-no-samplesperpixel.tif',
      ...['tiff_tiled_planar_raw.tif', 'tiff_tiled_planar_lzw.tiff'],
      ...['tiff_tiled_planar_16bit_RGB.tiff', 'tiff_tiled_planar_16bit_RGBa.tiff'],
      // Made to break decoders; the library shows something of them.
      'crash-0da013a13571cc8eb457a39fee8db18f8a3c7127.tif',
      'crash-74d2a78403a5a59db1fb0a2b8735ac068a75f6e3.tif',
    ]),
    otherwise: {
      ...{ 'g4_orientation_5.tif': TURNED, 'g4_orientation_6.tif': TURNED },
      ...{ 'g4_orientation_7.tif': TURNED, 'g4_orientation_8.tif': TURNED },
      ...{ 'tiff_strip_cmyk_jpeg.tif': PROFILE, 'tiff_tiled_cmyk_jpeg.tif': PROFILE },
    },
  },
  {
    from: 'pillow',
    folder: 'Tests/images/tiff_gray_2_4_bpp',
    files: /\.tiff?$/,
    short: false,
    truth: 'libtiff',
  },
  {
    from: 'imagemagick',
    folder: 'PerlMagick/t/png',
    files: /\.png$/,
    short: false,
    truth: 'libpng',
  },
  {
    from: 'imagemagick',
    folder: 'PerlMagick/t/tiff',
    files: /\.tiff$/,
    short: false,
    truth: 'libtiff',
    refused: { 'input_gray_4bit_matte.tiff': 'not-read' },
    otherwise: { 'input_256_matte.tiff': OPACITY, 'input_gray_8bit_matte.tiff': OPACITY },
  },
];
