const [MINUTE_S, HOUR_S, DAY_S] = [60, 3600, 86_400];

/**
 * A time since the beginning, or a length of time, in words that are the same in every reader's units: to a tenth of a
 * second below ten, to a second below two hours, to a minute above.
 *
 * @param time_s not negative [s]
 */
export function clockText(time_s: number): string {
  const tenths = Math.round(time_s * 10) / 10;
  if (tenths < 10) return `${tenths} s`;
  const seconds = Math.round(time_s);
  if (seconds < MINUTE_S) return `${seconds} s`;
  const parts = (most: readonly (readonly [number, string])[], of: number): string => {
    let left = of;
    return most
      .flatMap(([unit, symbol], i) => {
        const count = i === most.length - 1 ? Math.round(left / unit) : Math.floor(left / unit);
        left -= count * unit;
        return count > 0 ? [`${count} ${symbol}`] : [];
      })
      .join(' ');
  };
  if (seconds < 2 * HOUR_S)
    return parts(
      [
        [HOUR_S, 'h'],
        [MINUTE_S, 'min'],
        [1, 's'],
      ],
      seconds,
    );
  const minutes_s = Math.round(time_s / MINUTE_S) * MINUTE_S;
  return parts(
    [
      [DAY_S, 'd'],
      [HOUR_S, 'h'],
      [MINUTE_S, 'min'],
    ],
    minutes_s,
  );
}
