/** What stands in the practice desk's windows. All of it is made up. */

type Plant = readonly [accession: string, name: string, bed: string, checked: string];

const firstPlants: readonly Plant[] = [
  ['FH-2031', 'Marsh marigold', 'Pond edge', '12 Nov'],
  ['FH-2044', 'Hart’s-tongue fern', 'North bank', '14 Nov'],
  ['FH-2057', 'Field maple', 'Gate avenue', '02 Nov'],
  ['FH-2063', 'Sea holly', 'Shingle bed', '20 Nov'],
  ['FH-2078', 'Guelder rose', 'Long border', '21 Nov'],
  ['FH-2090', 'Wood sorrel', 'North bank', '—'],
  ['FH-2102', 'Sweet violet', 'Nursery', '18 Nov'],
  ['FH-2115', 'Water mint', 'Pond edge', '09 Nov'],
  ['FH-2121', 'Alder buckthorn', 'Pond edge', '11 Nov'],
  ['FH-2130', 'Dog rose', 'Gate avenue', '16 Nov'],
  ['FH-2138', 'Meadow cranesbill', 'Long border', '19 Nov'],
  ['FH-2144', 'Royal fern', 'Pond edge', '05 Nov'],
  ['FH-2152', 'Spindle', 'North bank', '—'],
  ['FH-2160', 'Sea campion', 'Shingle bed', '22 Nov'],
  ['FH-2171', 'Cowslip', 'Nursery', '17 Nov'],
  ['FH-2188', 'Yellow flag', 'Pond edge', '13 Nov'],
  ['FH-2193', 'Wild service tree', 'Gate avenue', '08 Nov'],
  ['FH-2204', 'Bugle', 'North bank', '15 Nov'],
];

const names = [
  ...['Alpine strawberry', 'Autumn crocus', 'Bell heather', 'Bird’s-foot trefoil', 'Black alder'],
  ...['Bog myrtle', 'Broad-leaved lime', 'Burnet rose', 'Butcher’s broom', 'Chamomile'],
  ...['Common polypody', 'Cornelian cherry', 'Crab apple', 'Creeping thyme', 'Devil’s-bit'],
  ...['Dwarf elder', 'Early purple orchid', 'Fennel', 'Fritillary', 'Germander speedwell'],
  ...['Globeflower', 'Great burnet', 'Hazel', 'Hemp agrimony', 'Holly fern', 'Hop hornbeam'],
  ...['Iris of the marsh', 'Jacob’s ladder', 'Juniper', 'Kingcup', 'Lady’s mantle', 'Larkspur'],
  ...['Lesser celandine', 'Lily of the valley', 'Meadowsweet', 'Monkshood', 'Mountain avens'],
  ...['Ox-eye daisy', 'Pasque flower', 'Primrose', 'Quaking grass', 'Ragged robin'],
  ...['Sea kale', 'Snakeroot', 'Solomon’s seal', 'Teasel', 'Viper’s bugloss', 'Wood anemone'],
  'Yarrow',
];
const places = ['North bank', 'Long border', 'Pond edge', 'Gate avenue', 'Shingle bed', 'Nursery'];

/** The register goes on well below what its window shows: something to scroll. */
const morePlants = Array.from({ length: 196 }, (_, i): Plant => {
  const name = names[(i * 11) % names.length] ?? '';
  const day = String(1 + ((i * 7) % 24)).padStart(2, '0');
  return [
    `FH-${2211 + i * 9 - (i % 4)}`,
    name,
    places[(i * 5 + Math.floor(i / 7)) % places.length] ?? '',
    i % 13 === 5 ? '—' : `${day} Nov`,
  ];
});

/** The plant register: 214 accessions by number. */
export const plants: readonly Plant[] = [...firstPlants, ...morePlants];

/** Menu entries, and what they turn into while Alt is held. */
export const menus = {
  Beds: [
    ['Pond edge', 'Pond edge, drained'],
    ['North bank', 'North bank, covered'],
    ['Shingle bed', 'Shingle bed, raked'],
    ['Long border', 'Long border, cut back'],
  ],
  Labels: [
    ['Print label', 'Print label twice'],
    ['Preview label', 'Preview on dark stock'],
    ['Mend label text', 'Mend all label texts'],
    ['Retire label', 'Retire and archive'],
  ],
} as const;

export const order = {
  number: 'SX-48-7713-KA',
  email: 'wren@fernhollow.example',
  card: '4242 4242 4242 4242',
  lines: ['Sea holly, 1 packet', 'Cowslip, 2 packets'],
};

export const sensors = [
  { name: 'Greenhouse, bench 3', unit: '°C' },
  { name: 'North bank, soil', unit: '°C' },
  { name: 'Pond, 40 cm', unit: '°C' },
] as const;

export const sensorFault = 'Sensor 14 is not responding (E-207). Frost cover may not close.';

export const notes = [
  'Sorrel has the key to the nursery until Thursday.',
  'Labels for the shingle bed are printed; Rowan puts',
  'them out with the new row of sea holly.',
  'Ask Wren whether order SX-48-7713-KA went out.',
];

export const beds: readonly {
  name: string;
  x: number;
  y: number;
  width: number;
  height: number;
}[] = [
  { name: 'Pond edge', x: 40, y: 60, width: 170, height: 90 },
  { name: 'North bank', x: 240, y: 40, width: 260, height: 60 },
  { name: 'Shingle bed', x: 260, y: 130, width: 130, height: 110 },
  { name: 'Long border', x: 60, y: 190, width: 160, height: 70 },
  { name: 'Nursery', x: 420, y: 150, width: 90, height: 100 },
];
