// Rectangles and points of a drawing: guides to snap to, alignment, paths with rounded corners. Lengths are px; a rectangle
// is { x, y, width, height }, a point [x, y].

const CORNER = 6;

export const right = (box) => box.x + box.width;
export const bottom = (box) => box.y + box.height;
export const middle = (box) => [box.x + box.width / 2, box.y + box.height / 2];

export const overlaps = (a, b, gap = 0) =>
  a.x < right(b) + gap && b.x < right(a) + gap && a.y < bottom(b) + gap && b.y < bottom(a) + gap;

export const contains = (outer, inner) =>
  inner.x >= outer.x && inner.y >= outer.y && right(inner) <= right(outer) && bottom(inner) <= bottom(outer);

/** The smallest rectangle around some; null around none. */
export function around(boxes) {
  if (!boxes.length) {
    return null;
  }
  const x = Math.min(...boxes.map((box) => box.x));
  const y = Math.min(...boxes.map((box) => box.y));
  return { x, y, width: Math.max(...boxes.map(right)) - x, height: Math.max(...boxes.map(bottom)) - y };
}

/** The corners in pairs, from numbers in a row. */
export const pairs = (numbers) =>
  Array.from({ length: numbers.length / 2 }, (_, i) => [numbers[2 * i], numbers[2 * i + 1]]);

const at = ([x, y]) => `${Math.round(x * 10) / 10} ${Math.round(y * 10) / 10}`;

function towards(corner, other) {
  const far = Math.hypot(other[0] - corner[0], other[1] - corner[1]);
  const step = far === 0 ? 0 : Math.min(CORNER, far / 2) / far;
  return [corner[0] + (other[0] - corner[0]) * step, corner[1] + (other[1] - corner[1]) * step];
}

/** An SVG path of straight pieces with rounded corners. */
export function pathOf(points) {
  const corners = points
    .slice(1, -1)
    .map((corner, i) => `L${at(towards(corner, points[i]))}Q${at(corner)} ${at(towards(corner, points[i + 2]))}`);
  return `M${at(points[0])}${corners.join('')}L${at(points.at(-1))}`;
}

/** Without corners that are none and pieces of no length. */
export function simplified(points) {
  const kept = [];
  for (const point of points) {
    const before = kept.at(-1);
    if (before && Math.abs(before[0] - point[0]) < 0.5 && Math.abs(before[1] - point[1]) < 0.5) {
      continue;
    }
    const first = kept.at(-2);
    const straight =
      first &&
      ((Math.abs(first[0] - before[0]) < 0.5 && Math.abs(before[0] - point[0]) < 0.5) ||
        (Math.abs(first[1] - before[1]) < 0.5 && Math.abs(before[1] - point[1]) < 0.5));
    if (straight) {
      kept.pop();
    }
    kept.push(point);
  }
  return kept;
}

const ALONG = [1 / 2, 1 / 4, 3 / 4];

/** The places for a label beside a piece of a line: at its middle, then nearer to its ends. */
function placesBeside({ a, b, level }, { width, height }) {
  return ALONG.map((share) => [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share]).flatMap(([x, y]) =>
    level
      ? [
          [x - width / 2, y - 5],
          [x - width / 2, y + height],
        ]
      : [
          [x + 6, y + 4],
          [x - 6 - width, y + 4],
        ],
  );
}

/**
 * Where a label of a line stands: the left end of its base line, beside a piece of the line, the longest first, and where it
 * covers least.
 *
 * @param label { width, height }
 * @param coverage (rectangle) how bad it is what a label there would cover; 0 if it covers nothing
 */
export function labelPlace(points, label, coverage = () => 0) {
  const places = points
    .slice(1)
    .map((b, i) => ({ a: points[i], b, level: Math.abs(points[i][1] - b[1]) < 1 }))
    .map((piece) => ({
      ...piece,
      worth: Math.hypot(piece.a[0] - piece.b[0], piece.a[1] - piece.b[1]) * (piece.level ? 1.5 : 1),
    }))
    .sort((one, other) => other.worth - one.worth)
    .flatMap((piece) => placesBeside(piece, label));
  let best = { place: places[0], covered: Infinity };
  for (const place of places) {
    const covered = coverage({ x: place[0], y: place[1] - label.height + 3, ...label });
    if (covered < best.covered) {
      best = { place, covered };
    }
    if (covered === 0) {
      break;
    }
  }
  return best.place;
}

/**
 * How far a moved rectangle is to be shifted so that its edges or middle meet those of another.
 *
 * @returns {{dx: number, dy: number, guides: Array<[[number, number], [number, number]]>}} the guides are lines to draw
 */
export function snap(box, others, reach) {
  const along = (start, size) =>
    others
      .flatMap((other) => [other[start], other[start] + other[size] / 2, other[start] + other[size]])
      .flatMap((goal) =>
        [box[start], box[start] + box[size] / 2, box[start] + box[size]].map((edge) => ({ goal, by: goal - edge })),
      )
      .filter(({ by }) => Math.abs(by) <= reach)
      .sort((a, b) => Math.abs(a.by) - Math.abs(b.by))[0];
  const x = along('x', 'width');
  const y = along('y', 'height');
  const moved = { ...box, x: box.x + (x?.by ?? 0), y: box.y + (y?.by ?? 0) };
  const all = around([moved, ...others]);
  return {
    dx: x?.by ?? 0,
    dy: y?.by ?? 0,
    guides: [
      ...(x
        ? [
            [
              [x.goal, all.y],
              [x.goal, bottom(all)],
            ],
          ]
        : []),
      ...(y
        ? [
            [
              [all.x, y.goal],
              [right(all), y.goal],
            ],
          ]
        : []),
    ],
  };
}

const ALIGN = {
  left: (box, all) => ({ x: all.x, y: box.y }),
  right: (box, all) => ({ x: right(all) - box.width, y: box.y }),
  top: (box, all) => ({ x: box.x, y: all.y }),
  bottom: (box, all) => ({ x: box.x, y: bottom(all) - box.height }),
  middle: (box, all) => ({ x: box.x, y: all.y + (all.height - box.height) / 2 }),
  centre: (box, all) => ({ x: all.x + (all.width - box.width) / 2, y: box.y }),
};

/** The new places of boxes put on one line: left, right, top, bottom, middle (one height) or centre (one column). */
export function aligned(boxes, how) {
  const all = around(boxes);
  return boxes.map((box) => ALIGN[how](box, all));
}

/** The new places of boxes with equal gaps between them, the outermost two staying. */
export function distributed(boxes, how) {
  const [start, size] = how === 'across' ? ['x', 'width'] : ['y', 'height'];
  const order = boxes.map((_, i) => i).sort((a, b) => boxes[a][start] - boxes[b][start]);
  const all = around(boxes);
  const gap = (all[size] - boxes.reduce((sum, box) => sum + box[size], 0)) / (boxes.length - 1);
  const places = [];
  let next = all[start];
  for (const i of order) {
    places[i] = { x: boxes[i].x, y: boxes[i].y, [start]: next };
    next += boxes[i][size] + gap;
  }
  return places;
}

/** The place at the border of a rectangle nearest to a point, from its upper left corner, with the side it is at. */
export function atBorder(box, [px, py]) {
  const x = Math.min(Math.max(px - box.x, 0), box.width);
  const y = Math.min(Math.max(py - box.y, 0), box.height);
  const sides = [
    { side: 'left', far: x, x: 0, y },
    { side: 'right', far: box.width - x, x: box.width, y },
    { side: 'top', far: y, x, y: 0 },
    { side: 'bottom', far: box.height - y, x, y: box.height },
  ];
  const { far: _, ...place } = sides.reduce((best, each) => (each.far < best.far ? each : best));
  return place;
}
