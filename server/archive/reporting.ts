import type { BroughtKind, Counts, Report } from '@/core/contracts/archive';

/** As many are told by name; beyond that it is said how many more there are. */
const MOST = 200;

/** What is told of an archive that comes in, or is written. */
export class Reporting {
  private readonly report: Report = { told: [], damaged: [], more: 0 };

  count(kind: BroughtKind, what: keyof Counts): void {
    const counts = (this.report.brought ??= {});
    const own = (counts[kind] ??= { added: 0, here: 0, beside: 0 });
    own[what] += 1;
  }

  /** A conflict, and what was done about it. */
  tell(words: string): void {
    if (this.report.told.length < MOST) this.report.told.push(words);
    else this.report.more += 1;
  }

  /** An entry that was left out, or a part of it. */
  damaged(entry: string, why: string): void {
    if (this.report.damaged.length < MOST) this.report.damaged.push({ entry, why });
    else this.report.more += 1;
  }

  whole(): Report {
    return this.report;
  }
}
