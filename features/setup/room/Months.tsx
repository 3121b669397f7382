import { scaleBand, scaleLinear } from 'd3-scale';
import { monthKinds, type Room } from '@/core/contracts/room';
import { formatBytes, formatCount } from '../../ui/format';
import { fills, kindLabels, monthName } from './labels';

const WIDTH = 720;
const HEIGHT = 150;
const BELOW = 20;
const WIDEST = 80;
/** Years are more than can be seen apart; the table has them all. */
const SHOWN = 36;

/** What came in each month, in bars and as a table. */
export function Months({ months }: { months: Room['months'] }) {
  const shown = months.slice(-SHOWN);
  const sum = (month: Room['months'][number]) =>
    monthKinds.reduce((all, kind) => all + month[kind], 0);
  const most = Math.max(1, ...shown.map(sum));
  const x = scaleBand(
    shown.map(({ month }) => month),
    // A few months stand at the left, not spread over the width.
    [0, Math.min(WIDTH, shown.length * WIDEST)],
  ).padding(0.2);
  const y = scaleLinear([0, most], [HEIGHT, 4]);
  const every = Math.ceil(shown.length / 8);
  const latest = shown.at(-1);
  return (
    <section aria-label="By month" className="rounded-[9px] border border-line bg-card px-4 py-3">
      <div className="mb-2 flex flex-wrap items-baseline gap-x-4">
        <h2 className="grow font-name text-lg">By month</h2>
        {monthKinds.map((kind) => (
          <span key={kind} className="flex items-center gap-1.5 text-[13px] text-soft">
            <span
              aria-hidden
              className="size-3 rounded-[3px]"
              style={{ background: fills[kind] }}
            />
            {kindLabels[kind].label}
          </span>
        ))}
      </div>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT + BELOW}`}
        role="img"
        aria-label={`Bars of ${shown.length} months, the highest ${formatBytes(most)}`}
        className="w-full"
      >
        <line x1={0} x2={WIDTH} y1={HEIGHT} y2={HEIGHT} stroke="var(--color-line)" />
        {shown.map((month, i) => {
          let top = 0;
          return (
            <g key={month.month}>
              <title>{`${monthName(month.month, 'long')}: ${formatBytes(sum(month))}, ${formatCount(month.shots)} ${month.shots === 1 ? 'shot' : 'shots'}`}</title>
              {monthKinds.map((kind) => {
                const from = top;
                top += month[kind];
                return (
                  <rect
                    key={kind}
                    x={x(month.month)}
                    width={Math.min(x.bandwidth(), 60)}
                    y={y(top)}
                    height={y(from) - y(top)}
                    fill={fills[kind]}
                  />
                );
              })}
              {(shown.length - 1 - i) % every === 0 && (
                <text
                  x={(x(month.month) ?? 0) + Math.min(x.bandwidth(), 60) / 2}
                  y={HEIGHT + 14}
                  textAnchor={month === latest && shown.length > 2 ? 'end' : 'middle'}
                  dx={month === latest && shown.length > 2 ? Math.min(x.bandwidth(), 60) / 2 : 0}
                  fontSize={12}
                  fill="var(--color-soft)"
                >
                  {monthName(month.month, 'short')}
                </text>
              )}
            </g>
          );
        })}
      </svg>
      <details className="mt-1">
        <summary className="text-petrol">As a table</summary>
        <div className="mt-1 max-h-72 overflow-auto">
          <table className="w-full text-[13px]">
            <thead>
              <tr className="text-left">
                {['Month', 'Shots', ...monthKinds.map((kind) => kindLabels[kind].label)].map(
                  (head) => (
                    <th key={head} scope="col" className="py-1 pr-3">
                      {head}
                    </th>
                  ),
                )}
              </tr>
            </thead>
            <tbody>
              {[...months].reverse().map((month) => (
                <tr key={month.month} className="border-t border-line">
                  <th scope="row" className="py-1 pr-3 text-left font-normal">
                    {monthName(month.month, 'long')}
                  </th>
                  <td>{formatCount(month.shots)}</td>
                  {monthKinds.map((kind) => (
                    <td key={kind}>{formatBytes(month[kind])}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </section>
  );
}
