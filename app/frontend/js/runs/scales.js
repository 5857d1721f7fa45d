// The arithmetic of plots: units of time, numbers, ranges with room for limits, places for labels.

export const number = (value) =>
  value == null || !Number.isFinite(value) ? '–' : Number(value.toPrecision(4)).toString();

/** The unit of time that suits a span that ends at a time in s, and its factor from s. */
export function clock(last) {
  if (last >= 7200) {
    return { unit: 'h', factor: 1 / 3600 };
  }
  return last >= 300 ? { unit: 'min', factor: 1 / 60 } : { unit: 's', factor: 1 };
}

/** The labels of ticks at equal distances: as many decimals as tell one from the next, and never the same twice. */
export function tickLabels(ticks) {
  const step = ticks.length > 1 ? Math.abs(ticks[1] - ticks[0]) : Math.abs(ticks[0] ?? 1);
  const largest = Math.max(...ticks.map(Math.abs), 0);
  const decimals = step > 0 ? Math.max(0, -Math.floor(Math.log10(step) + 1e-6)) : 0;
  const digits = (step > 0 ? Math.max(0, Math.floor(Math.log10(largest / step))) : 0) + 1;
  const write = (value, more) =>
    largest >= 1e6 || decimals > 6
      ? value.toExponential(Math.min(12, digits + more - 1)).replace('e+', 'e')
      : value.toFixed(Math.min(12, decimals + more)).replace(/^-(0(\.0*)?)$/, '$1');
  for (let more = 0; more < 6; more++) {
    const labels = ticks.map((tick) => write(tick, more));
    const isExact = labels.every((label, i) => Math.abs(Number(label) - ticks[i]) <= 0.01 * step);
    if (isExact && new Set(labels).size === labels.length) {
      return labels;
    }
  }
  return ticks.map((tick, i) => (i === 0 || tick !== ticks[i - 1] ? String(tick) : ''));
}

/** [bottom, top] of an axis that shows values from low to high and the limits drawn on it, with 7 % of room on each side. */
export function rangeWith(limits, low, high) {
  const all = [low, high, ...limits].filter(Number.isFinite);
  const bottom = Math.min(...all);
  const top = Math.max(...all);
  const room = (top - bottom || Math.abs(top) || 1) * 0.07;
  return [bottom - room, top + room];
}

/** The stretches [first, last] of indices in which values are on the wrong side of a limit. */
export function violations(values, { sense, value: limit }) {
  const isWrong = sense === 'UPPER' ? (value) => value > limit : (value) => value < limit;
  const found = [];
  let first = -1;
  for (let i = 0; i <= values.length; i++) {
    const inside = i < values.length && values[i] != null && isWrong(values[i]);
    if (inside && first < 0) {
      first = i;
    } else if (!inside && first >= 0) {
      found.push([first, i - 1]);
      first = -1;
    }
  }
  return found;
}

/** A height near a line where no label is yet: just above, just below, or farther off; the label takes it. */
export function freeNear(y, taken, ratio = 1) {
  const places = [-9, 9, -22, 22, -35, 35].map((off) => y + off * ratio);
  const free = places.find((place) => taken.every((other) => Math.abs(other - place) >= 12 * ratio)) ?? places[0];
  taken.push(free);
  return free;
}

/** Moves labels down, in the order of their heights, until they are a gap apart. */
export function apart(labels, gap) {
  const sorted = labels.toSorted((a, b) => a.y - b.y);
  for (let k = 1; k < sorted.length; k++) {
    sorted[k] = { ...sorted[k], y: Math.max(sorted[k].y, sorted[k - 1].y + gap) };
  }
  return sorted;
}
