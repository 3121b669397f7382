const fields: [string, string][] = [
  ['{title}, {title:lower,-}', 'the shot’s name; lower, upper, - or _ for spaces'],
  ['/', 'a subfolder: {date:yyyy}/{title}'],
  ['{date}, {date:dd.MM.yyyy}', 'the day it was taken'],
  ['{time}, {time:HHmm}', 'the time'],
  ['{window}', 'the window’s title'],
  ['{n}, {n:3}', 'a number that counts on, with digits'],
  ['{size}, {width}, {height}', 'in pixels'],
];

/** What a name pattern may hold. */
export function PatternHelp() {
  return (
    <details className="mt-1 text-[13px] text-soft">
      <summary>Fields for names</summary>
      <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-3">
        {fields.map(([field, meaning]) => (
          <div key={field} className="contents">
            <dt className="font-measure">{field}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
    </details>
  );
}
