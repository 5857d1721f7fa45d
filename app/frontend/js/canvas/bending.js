// Bending a line: which of its pieces is meant, and its corners once that piece has moved sideways.

/** How far from its ends a line may bend. */
const STUB = 16;

/** With a corner near each end, so that every piece between them can be moved. */
export function opened(points) {
  const near = (a, b) => {
    const far = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const share = Math.min(STUB, far / 3) / (far || 1);
    return [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share];
  };
  return [
    points[0],
    near(points[0], points[1]),
    ...points.slice(1, -1),
    near(points.at(-1), points.at(-2)),
    points.at(-1),
  ];
}

export function nearestPiece(points, [x, y]) {
  let best = { far: Infinity, at: 1 };
  for (let i = 1; i < points.length - 2; i++) {
    const [a, b] = [points[i], points[i + 1]];
    const far =
      Math.max(Math.min(a[0], b[0]) - x, x - Math.max(a[0], b[0]), 0) +
      Math.max(Math.min(a[1], b[1]) - y, y - Math.max(a[1], b[1]), 0);
    best = far < best.far ? { far, at: i } : best;
  }
  return best.at;
}

/** The corners between the ends after a piece was moved. */
export function shifted(points, at, [dx, dy]) {
  const corners = points.slice(1, -1);
  const i = at - 1;
  const [a, b] = [corners[i], corners[i + 1]];
  const moved = [
    [a[0] + dx, a[1] + dy],
    [b[0] + dx, b[1] + dy],
  ];
  const first = i === 0 ? [] : corners.slice(1, i);
  const rest = i + 1 === corners.length - 1 ? [] : corners.slice(i + 2, -1);
  return [...first, ...moved, ...rest];
}

/** The longest piece that can be moved: what keys move, for nothing points at one. */
export function longestPiece(points) {
  const far = (i) => Math.hypot(points[i + 1][0] - points[i][0], points[i + 1][1] - points[i][1]);
  const pieces = points.slice(1, -2).map((_, i) => i + 1);
  return pieces.sort((a, b) => far(b) - far(a))[0] ?? 1;
}
