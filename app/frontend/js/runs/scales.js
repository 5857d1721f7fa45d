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
