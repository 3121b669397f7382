/**
 * Pages kept apart: none of them was looked at, nor what was missed on them, while the finder was
 * made or changed. Whoever changes the finder after reading their misses moves them to pages.ts
 * and writes new ones.
 */

const base = `*{box-sizing:border-box}body{margin:0;min-height:100vh;font:14px/1.45 "DejaVu Sans",sans-serif;position:relative}
button,input,select,textarea{font:inherit;color:inherit}h2{margin:0 0 8px;font-size:18px}p{margin:6px 0}
.flow{display:flex;gap:14px}.down{display:flex;flex-direction:column;gap:10px}.head{display:flex;gap:8px;align-items:center;padding:8px 14px}
.side{width:230px;min-height:720px;padding:14px}.main{flex:1;padding:18px}.panel{padding:14px}
.menu{position:absolute;width:190px}.menu div{padding:5px 12px}.menu hr{border:0;border-top:1px solid #8884;margin:4px 0}
.window{position:absolute;padding:22px}.cards{display:grid;grid-template-columns:repeat(4,1fr);gap:16px}
.picture{height:90px;background:linear-gradient(130deg,#4d7a5c,#c9b458 60%,#7a5a8a)}.veil{position:absolute;inset:0;background:#0006}
.days{display:grid;grid-template-columns:repeat(7,1fr)}.days div{height:74px;padding:4px;border:1px solid #8885}
.bubble{padding:10px 14px;max-width:420px}code{font-family:"DejaVu Sans Mono",monospace}`;

export const freshLooks = [
  {
    name: 'harbour',
    css: `body{background:#e9edf2;color:#1d2733}.head{background:#fff;border-bottom:1px solid #cfd6df}.side{background:#dfe5ec}
.panel{background:#fff;box-shadow:0 1px 4px #0003;border-radius:4px}button{background:#2456a6;color:#fff;border:1px solid #1b4382;border-radius:4px;padding:6px 14px}
input,select,textarea{background:#fff;border:1px solid #97a3b3;border-radius:3px;padding:5px 8px}
.menu{background:#fff;border:1px solid #b4bfcc;box-shadow:0 4px 14px #0004;border-radius:4px;padding:4px 0}
.window{background:#fff;border-radius:8px;box-shadow:0 10px 40px #0007}.bubble{background:#fff;border-radius:14px}`,
  },
  {
    name: 'slate',
    css: `body{background:#1f2430;color:#d6dbe6}.head{background:#171b25;border-bottom:1px solid #363d4d}.side{background:#252b39}
.panel{background:#2a3040;border:1px solid #3a4254}button{background:#48506a;color:#fff;border:1px solid #616a86;padding:6px 14px;border-radius:2px}
input,select,textarea{background:#161a23;border:1px solid #556079;padding:5px 8px}
.menu{background:#313849;border:1px solid #4d566c;padding:4px 0}.window{background:#2d3444;border:1px solid #5b6580}.bubble{background:#364059;border-radius:10px}`,
  },
] as const;

export const freshPages: readonly [string, string][] = [
  [
    'letters',
    `<div class=head><b>Fernhollow letters</b><button>Write</button><button>Answer</button><button>File away</button><input placeholder="Find" style="width:220px;margin-left:auto"></div>
<div class=flow><div class=side><p>Inbox 4<p>Waiting<p>Seed exchange<p>Members</div><div class=main><div class=panel style="height:520px"><h2>Hedge cutting on Saturday</h2>
<p>From the head gardener<p>Please bring gloves. The nursery gate opens at nine.<p>Tea in the greenhouse at eleven.</div></div></div>
<div class=window style="left:700px;top:330px;width:480px;height:380px"><h2>New letter</h2><div class=down><input value="members@fernhollow.example"><input value="Saturday"><textarea style="height:130px">Dear all,</textarea><div class=flow><button>Send</button><button>Leave it</button></div></div></div>`,
  ],
  [
    'calendar',
    `<div class=head><button>Back</button><b>November</b><button>On</button><select style="width:120px;margin-left:auto"><option>Month</select></div>
<div class=main><div class=days>${Array.from({ length: 28 }, (_, i) => `<div>${i + 1}</div>`).join('')}</div></div>
<div class=window style="left:380px;top:170px;width:440px;height:330px"><h2>Visit of the school</h2><div class=down><div class=flow>From <input value="10:00" style="width:90px"> to <input value="12:30" style="width:90px"></div>
<select style="width:240px"><option>Greenhouse</select><textarea style="width:380px;height:80px">28 children, two classes.</textarea><div class=flow><button>Put in</button><button>Strike out</button></div></div></div>`,
  ],
  [
    'catalogue',
    `<div class=head><b>Seeds</b><input value="meadow" style="width:300px"><button>Look</button><button style="margin-left:auto">Basket 3</button></div>
<div class=main><div class=cards>${['Oxeye daisy', 'Yarrow', 'Ragged robin', 'Teasel', 'Cornflower', 'Self-heal', 'Red campion', 'Betony'].map((n) => `<div class=panel><div class=picture></div><h2>${n}</h2><p>2.40 a packet</p><button>Add</button></div>`).join('')}</div></div>`,
  ],
  [
    'door',
    `<div class=head><b>Plant register</b></div><div class=main><div class=panel style="height:600px"><h2>Beds</h2><p>North bank<p>Pond edge<p>Long border</div></div><div class=veil></div>
<div class=window style="left:440px;top:200px;width:400px;height:340px"><h2>Who is there?</h2><div class=down><input value="wren" style="width:350px"><input value="........" style="width:350px"><select style="width:350px"><option>Garden office</select><div class=flow><button>Come in</button><button>Help</button></div></div></div>`,
  ],
  [
    'sheet',
    `<div class=head><button>B</button><button>I</button><button>Sum</button><select style="width:90px"><option>14</select><input value="=B2*C2" style="width:420px"></div>
<div class=main><table style="border-collapse:collapse">${Array.from({ length: 7 }, (_, row) => `<tr>${['Bed', 'Litres', 'Minutes', 'Day'].map((h, col) => `<td style="padding:2px 8px;border:1px solid #8886"><input style="width:150px" value="${row ? `${h} ${row * (col + 3)}` : h}"></td>`).join('')}</tr>`).join('')}</table></div>
<div class=menu style="left:860px;top:190px"><div>Cut</div><div>Copy</div><div>Paste</div><hr><div>Row above</div><div>Row below</div></div>`,
  ],
  [
    'switches',
    `<div class=flow><div class=side><b>Setup</b><p>Sensors<p>Watering<p>Notices</div><div class=main down><h2>Notices</h2>
${['Frost tonight', 'Tank below a third', 'Door of the greenhouse open'].map((n) => `<div class=panel style="width:640px;margin-bottom:14px"><div class=flow style="align-items:center"><span style="flex:1">${n}</span><select style="width:150px"><option>By letter</select><button>Try</button></div></div>`).join('')}
<div class=panel style="width:640px"><p>Quiet from <input value="21:00" style="width:80px"> to <input value="07:00" style="width:80px"></p><button>Keep</button></div></div></div>`,
  ],
  [
    'talk',
    `<div class=flow><div class=side><b>Volunteers</b><p>Hedge gang<p>Pond<p>Tea</div><div class=main down style="display:flex;min-height:720px">
<div class=bubble>Has anyone seen the long rake?</div><div class=bubble style="align-self:flex-end">Behind the shed, left of the door.</div><div class=bubble>Found it, thank you. I will bring it to the pond at two.</div>
<div class=flow style="margin-top:auto"><textarea style="flex:1;height:64px">See you there</textarea><button>Send</button></div></div></div>
<div class=menu style="left:620px;top:250px"><div>Answer</div><div>Copy words</div><div>Pin</div><hr><div>Remove</div></div>`,
  ],
  [
    'notes',
    `<div class=head><button>Files</button><button>Search</button><button>Check</button><input value="beds/pond-edge.txt" style="width:360px;margin-left:auto"></div>
<div class=flow style="padding:14px"><div class=panel style="width:250px;height:600px"><code>beds/<br>&nbsp;north-bank<br>&nbsp;pond-edge<br>labels/</code></div>
<textarea style="width:560px;height:600px">accession FH-2031
name Marsh marigold
planted 2019-04-02
accession FH-2044
name Field maple</textarea><div class=down style="width:340px"><div class=panel style="height:210px"><h2>Found</h2><p>3 lines</p></div><div class=panel style="height:150px"><button>Swap all</button></div></div></div>`,
  ],
];

export const freshPageOf = (css: string, body: string): string =>
  `data:text/html;charset=utf-8,${encodeURIComponent(`<!doctype html><style>${base}${css}</style><body>${body}`)}`;
