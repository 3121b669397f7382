export interface Month {
  year: number;
  /** 1–12. */
  month: number;
}

export const two = (n: number): string => String(n).padStart(2, '0');
/** 2026-11. */
export const textOf = ({ year, month }: Month): string => `${year}-${two(month)}`;

/** A month so many months away. */
export function shifted({ year, month }: Month, by: number): Month {
  const date = new Date(year, month - 1 + by, 1);
  return { year: date.getFullYear(), month: date.getMonth() + 1 };
}

/** The days of a month in weeks from Monday on; null for what lies outside it. */
export function weeksOf({ year, month }: Month): (number | null)[][] {
  const before = (new Date(year, month - 1, 1).getDay() + 6) % 7;
  const days = new Date(year, month, 0).getDate();
  const cells = Array.from({ length: Math.ceil((before + days) / 7) * 7 }, (_, i) => {
    const day = i - before + 1;
    return day >= 1 && day <= days ? day : null;
  });
  return Array.from({ length: cells.length / 7 }, (_, week) => cells.slice(week * 7, week * 7 + 7));
}
