import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { XDisplay } from './xDisplay';

const script = (geometry: string) => `
wm title . rows
wm geometry . ${geometry}
. configure -background #ffffff
text .t -font fixed -background #ffffff -foreground #000000 -borderwidth 0 -highlightthickness 0 \
  -insertofftime 0 -insertontime 0 -wrap none -takefocus 0
pack .t -fill both -expand 1
for {set i 0} {$i < 70} {incr i} { .t insert end "FH-[expr {2000 + $i * 7}]   bed [expr {$i * $i % 97}]\n" }
.t configure -state disabled
`;

/** Shows a window “rows” of 70 lines that are all different, black on white, scrolled by the wheel. */
export function startRows(display: XDisplay, geometry: string): void {
  const file = join(mkdtempSync(join(tmpdir(), 'rezzik-rows-')), 'rows.tcl');
  writeFileSync(file, script(geometry));
  display.start('wish', file);
}
