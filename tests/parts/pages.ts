/** Pages with many kinds of controls, in several looks; drawn by a real browser. */

interface Look {
  name: string;
  css: string;
}

const base = `*{box-sizing:border-box}body{margin:0;font:15px/1.4 sans-serif;min-height:100vh}
button,input,select,textarea{font:inherit}.row{display:flex;gap:12px;align-items:center;margin:10px 0}
.bar{display:flex;gap:10px;align-items:center;padding:10px 16px}.grid{display:grid;grid-template-columns:repeat(3,1fr);gap:18px;padding:20px}
.panel{padding:16px}.menu{position:absolute;padding:6px;width:200px}.menu div{padding:6px 10px}
.window{position:absolute;padding:20px;width:520px}table{border-collapse:collapse;width:100%}td,th{padding:6px 10px;text-align:left}
main{padding:16px}h1{font-size:24px}`;

export const looks: readonly Look[] = [
  {
    name: 'flat',
    css: `body{background:#f4f6f3;color:#222}.bar{background:#25523b;color:#fff}.panel{background:#fff;border:1px solid #d5ddd6}
button{background:#2f7d55;color:#fff;border:0;padding:8px 16px}input,select,textarea{border:1px solid #8a988f;background:#fff;padding:7px}
.menu{background:#fff;border:1px solid #aab5ad}.window{background:#fff;border:1px solid #7d8b82}td,th{border-bottom:1px solid #d5ddd6}`,
  },
  {
    name: 'dark',
    css: `body{background:#171c1a;color:#e6ece8}.bar{background:#0d1110}.panel{background:#232b28;border-radius:8px}
button{background:#3c6e57;color:#fff;border:0;border-radius:6px;padding:9px 18px}input,select,textarea{border:1px solid #55635c;background:#12171500;background-color:#101513;color:#fff;border-radius:6px;padding:8px}
.menu{background:#2d3733;border-radius:8px}.window{background:#28312d;border:1px solid #53615a;border-radius:10px}td,th{border-bottom:1px solid #35403b}`,
  },
  {
    name: 'classic',
    css: `body{background:#d4d0c8;color:#000}.bar{background:#d4d0c8;border-bottom:1px solid #808080}.panel{border:2px groove #fff;background:#d4d0c8}
button{background:#d4d0c8;border:2px outset #fff;padding:5px 14px}input,select,textarea{border:2px inset #d4d0c8;background:#fff;padding:4px}
.menu{background:#d4d0c8;border:2px outset #fff}.window{background:#d4d0c8;border:2px outset #fff}td,th{border:1px solid #808080}`,
  },
  {
    name: 'soft',
    css: `body{background:#faf7f2;color:#3a342c}.bar{background:linear-gradient(#fff,#f1ebe1);border-bottom:1px solid #e2d9ca}.panel{background:#fff;border-radius:16px;border:1px solid #e6dece}
button{background:linear-gradient(#f7c873,#eeb355);border:1px solid #c58e35;border-radius:20px;padding:9px 20px}input,select,textarea{border:1px solid #b9ac95;background:#fffdf8;border-radius:10px;padding:8px}
.menu{background:#fff;border:1px solid #cfc4ae;border-radius:12px}.window{background:#fff;border:1px solid #c9bda6;border-radius:14px}td,th{border-bottom:1px solid #eee5d6}`,
  },
];

/** Used while the finder was being made. */
export const pages: readonly [string, string][] = [
  [
    'settings',
    `<div class=bar><b>Fernhollow</b><button>Beds</button><button>Labels</button></div><main><h1>Watering</h1>
<div class=panel style="width:560px"><div class=row>Start <input value="06:00" style="width:120px"> End <input value="06:40" style="width:120px"></div>
<div class=row>Bed <select style="width:220px"><option>North bank</select></div><textarea style="width:480px;height:90px">Frost tonight.</textarea>
<div class=row><button>Save</button><button>Leave it</button></div></div></main>`,
  ],
  [
    'labels',
    `<main><div class=panel style="width:700px;height:420px"><h1>Plant labels</h1><div class=row>From <input value="FH-2031" style="width:140px"> to <input value="FH-2063" style="width:140px"><button>Fill</button></div>
<textarea style="width:620px;height:120px">Marsh marigold, Pond edge</textarea><div class=row><button>Preview</button><button>Print labels</button><select style="width:160px"><option>Small</select></div></div></main>
<div class=menu style="left:800px;top:80px"><div>Copy</div><div>Paste</div><div>Remove</div><div>Rename</div></div>`,
  ],
  [
    'order',
    `<div class=bar><b>Seed exchange</b><input placeholder="Find a plant" style="width:260px"><button>Search</button></div><main>
<div style="display:flex;gap:20px"><div class=panel style="width:640px"><h1>Order SX-48-7713-KA</h1>
<table><tr><th>Plant<th>Packets<th>Price<tr><td>Sea holly<td>1<td>2.40<tr><td>Cowslip<td>2<td>5.00</table>
<div class=row><button>Print slip</button><button>Close</button></div></div>
<div class=panel style="width:420px"><div class=row>Name <input value="Wren" style="width:240px"></div><div class=row>Post <select style="width:200px"><option>Second class</select></div>
<div class=row>Note</div><textarea style="width:360px;height:110px">By the shed door.</textarea><div class=row><button>Change the order</button></div></div></div></main>`,
  ],
  [
    'sensors',
    `<div class=bar><b>Sensors</b><button>Today</button><button>Week</button><button>Month</button></div><div class=grid>
${[
  'Greenhouse, bench 3',
  'North bank, soil',
  'Pond, 40 cm',
  'Gate avenue',
  'Nursery',
  'Long border',
]
  .map((name) => `<div class=panel><b>${name}</b><h1>11.4 °C</h1><button>History</button></div>`)
  .join('')}</div>`,
  ],
  [
    'register',
    `<div class=bar><b>Plant register</b><button>Beds</button><button>Export</button></div><main><div class=panel style="height:560px">
<div class=row><input placeholder="Find an accession" style="width:300px"><button>Find</button></div>
<table>${['FH-2031 Marsh marigold', 'FH-2044 Field maple', 'FH-2057 Sea holly', 'FH-2063 Spindle'].map((r) => `<tr><td>${r}<td>Pond edge<td>12 Nov`).join('')}</table></div>
<div class=menu style="left:120px;top:52px"><div>North bank</div><div>Pond edge</div><div>Nursery</div></div>
<div class=window style="left:420px;top:250px"><h1>Remove this accession?</h1><p>It stays in the record book.</p><input value="Reason" style="width:320px"><div class=row><button>Remove</button><button>Leave it</button></div></div></main>`,
  ],
];

export const pageOf = (look: Look, body: string): string =>
  `data:text/html;charset=utf-8,${encodeURIComponent(`<!doctype html><style>${base}${look.css}</style><body>${body}`)}`;

/** Run in the page: every element's box, and of those that can be seen as boxes, which kind they are. */
export const askBoxes = `
  const named = (el) => el.matches('button') ? 'button' : el.matches('input,select,textarea') ? 'field'
    : el.matches('.menu') ? 'menu' : el.matches('.window') ? 'window' : el.matches('.panel') ? 'panel' : null;
  return [...document.body.querySelectorAll('*')].map((el) => {
    const r = el.getBoundingClientRect();
    const spots = [[.5,.5],[.1,.3],[.9,.3],[.1,.7],[.9,.7]].map(([x, y]) => document.elementFromPoint(r.x + r.width * x, r.y + r.height * y));
    const seen = spots.filter((s) => s && (el === s || el.contains(s))).length;
    return { kind: seen >= 3 ? named(el) : null, x: Math.round(r.x), y: Math.round(r.y),
      width: Math.round(r.right) - Math.round(r.x), height: Math.round(r.bottom) - Math.round(r.y) };
  }).filter((b) => b.width > 10 && b.height > 10);`;
