// Finds ways for lines: orthogonal, around boxes, apart from other lines. A few shapes with two or three corners are tried
// first; where all of them meet a box, A* (Hart, Nilsson, Raphael 1968) searches the grid of lines that pass the boxes, with
// a price for each corner.
import { right, bottom, overlaps, simplified } from './geometry.js';

/** So far a line goes straight before it turns, and so far from a box it passes. */
const STUB = 16;
const CLEAR = 8;
const TIGHT = 1;
const BESIDE = 12;
const APART = 10;
const TURN = 40;
const SHARED = 60;
const CROSSING = 25;
const REACH = 120;
const MOST_OBSTACLES = 60;

const OUT = { left: [-1, 0], right: [1, 0], top: [0, -1], bottom: [0, 1] };

const grown = (box, by) => ({ x: box.x - by, y: box.y - by, width: box.width + 2 * by, height: box.height + 2 * by });

const piece = (a, b) => ({
  x: Math.min(a[0], b[0]),
  y: Math.min(a[1], b[1]),
  width: Math.abs(a[0] - b[0]),
  height: Math.abs(a[1] - b[1]),
});

/** The pieces of a line that other lines keep away from. */
export const piecesOf = (points) => points.slice(1).map((point, i) => piece(points[i], point));

const isLevel = (each) => each.height < 0.5;

/** How long two pieces run on top of each other. */
function shared(a, b) {
  if (isLevel(a) !== isLevel(b)) {
    return 0;
  }
  return isLevel(a)
    ? Math.abs(a.y - b.y) < APART / 2
      ? Math.min(right(a), right(b)) - Math.max(a.x, b.x)
      : 0
    : Math.abs(a.x - b.x) < APART / 2
      ? Math.min(bottom(a), bottom(b)) - Math.max(a.y, b.y)
      : 0;
}

const price = (each, lines) =>
  lines.reduce((sum, line) => {
    if (shared(each, line) > 1) {
      return sum + SHARED;
    }
    return isLevel(each) !== isLevel(line) && overlaps(each, line, 0.1) ? sum + CROSSING : sum;
  }, 0);

/**
 * @param from { at: [x, y], side }: an end and the side it leaves by
 * @param obstacles the boxes that are in the way, the boxes of both ends included
 * @param lines the pieces of lines that are there already
 * @returns the corners, ends included
 */
export function route(from, to, obstacles, lines = []) {
  const start = stub(from);
  const end = stub(to);
  const region = grown(piece(start, end), REACH);
  const near = obstacles.filter((box) => overlaps(box, region)).slice(0, MOST_OBSTACLES);
  const beside = lines.filter((line) => overlaps(line, region));
  const inner =
    simple(from, to, start, end, near, beside) ??
    search(from, to, start, end, near, beside) ??
    // An end may be too close to a box for a line to keep its distance there.
    search(from, to, start, end, near, beside, TIGHT);
  return simplified([from.at, ...(inner ?? elbow(from, start, end)), to.at]);
}

const stub = ({ at, side }) => [at[0] + OUT[side][0] * STUB, at[1] + OUT[side][1] * STUB];

const isFree = (a, b, obstacles, clear = CLEAR) =>
  obstacles.every((box) => !overlaps(piece(a, b), grown(box, clear - 0.5), -0.01));

const passes = (points, obstacles) => points.slice(1).every((point, i) => isFree(points[i], point, obstacles));

const elbow = ({ side }, start, end) =>
  OUT[side][0] ? [start, [end[0], start[1]], end] : [start, [start[0], end[1]], end];

/** A straight line, one corner, or two with the middle piece where no other line is. */
function simple(from, to, start, end, obstacles, lines) {
  const leavesLevel = OUT[from.side][0] !== 0;
  const arrivesLevel = OUT[to.side][0] !== 0;
  const ways = [];
  if (leavesLevel && arrivesLevel) {
    ways.push(
      ...between(start[0], end[0], OUT[from.side][0], OUT[to.side][0]).map((x) => [
        start,
        [x, start[1]],
        [x, end[1]],
        end,
      ]),
    );
  } else if (!leavesLevel && !arrivesLevel) {
    ways.push(
      ...between(start[1], end[1], OUT[from.side][1], OUT[to.side][1]).map((y) => [
        start,
        [start[0], y],
        [end[0], y],
        end,
      ]),
    );
  } else {
    const corner = leavesLevel ? [end[0], start[1]] : [start[0], end[1]];
    const forward = (corner[0] - start[0]) * OUT[from.side][0] + (corner[1] - start[1]) * OUT[from.side][1];
    const backward = (corner[0] - end[0]) * OUT[to.side][0] + (corner[1] - end[1]) * OUT[to.side][1];
    if (forward >= 0 && backward >= 0) {
      ways.push([start, corner, end]);
    }
  }
  let best = null;
  for (const way of ways) {
    if (passes(way, obstacles)) {
      const cost = piecesOf(way).reduce((sum, each) => sum + price(each, lines), 0);
      if (cost === 0) {
        return way;
      }
      best = !best || cost < best.cost ? { cost, way } : best;
    }
  }
  return best?.way ?? null;
}

/** Where the middle piece may stand: the half of the way first, then more and more aside. */
function between(a, b, out, back) {
  const low = out > 0 ? a : -Infinity;
  const high = out > 0 ? Infinity : a;
  const from = Math.max(low, back > 0 ? b : -Infinity);
  const until = Math.min(high, back > 0 ? Infinity : b);
  if (from > until) {
    return [];
  }
  const half =
    Number.isFinite(from) && Number.isFinite(until) ? (from + until) / 2 : Number.isFinite(from) ? from : until;
  return [0, 1, -1, 2, -2, 3, -3, 4, -4, 5, -5]
    .map((step) => half + step * APART)
    .filter((place) => place >= from && place <= until);
}

/** The lines along which ways can lead: past each box, through the ends, and half way between them. */
function tracks(places) {
  return [...new Set(places.map((place) => Math.round(place * 10) / 10))].sort((a, b) => a - b);
}

function search(from, to, start, end, obstacles, lines, clear = CLEAR) {
  const xs = tracks([
    start[0],
    end[0],
    (start[0] + end[0]) / 2,
    ...obstacles.flatMap((box) => [
      box.x - BESIDE,
      box.x - BESIDE - APART,
      right(box) + BESIDE,
      right(box) + BESIDE + APART,
    ]),
  ]);
  const ys = tracks([
    start[1],
    end[1],
    (start[1] + end[1]) / 2,
    ...obstacles.flatMap((box) => [
      box.y - BESIDE,
      box.y - BESIDE - APART,
      bottom(box) + BESIDE,
      bottom(box) + BESIDE + APART,
    ]),
  ]);
  const node = (ix, iy, level) => (iy * xs.length + ix) * 2 + (level ? 1 : 0);
  const place = ([x, y]) => [xs.indexOf(Math.round(x * 10) / 10), ys.indexOf(Math.round(y * 10) / 10)];
  const [sx, sy] = place(start);
  const [ex, ey] = place(end);
  const size = xs.length * ys.length * 2;
  const cost = new Float64Array(size).fill(Infinity);
  const before = new Int32Array(size).fill(-1);
  const done = new Uint8Array(size);
  const heap = new Heap();
  const first = node(sx, sy, OUT[from.side][0] !== 0);
  const guess = (ix, iy) => Math.abs(xs[ix] - end[0]) + Math.abs(ys[iy] - end[1]);
  cost[first] = 0;
  heap.push(first, guess(sx, sy));
  const arrivesLevel = OUT[to.side][0] !== 0;
  let last = -1;
  while (heap.size && last < 0) {
    const at = heap.pop();
    if (done[at]) {
      continue;
    }
    done[at] = 1;
    const level = at % 2 === 1;
    const ix = (at >> 1) % xs.length;
    const iy = Math.floor((at >> 1) / xs.length);
    if (ix === ex && iy === ey) {
      last = at;
      break;
    }
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ]) {
      const [nx, ny] = [ix + dx, iy + dy];
      if (nx < 0 || ny < 0 || nx >= xs.length || ny >= ys.length) {
        continue;
      }
      const a = [xs[ix], ys[iy]];
      const b = [xs[nx], ys[ny]];
      if (!isFree(a, b, obstacles, clear)) {
        continue;
      }
      const goesLevel = dx !== 0;
      const ends = nx === ex && ny === ey && goesLevel !== arrivesLevel ? TURN : 0;
      const next = node(nx, ny, goesLevel);
      const total =
        cost[at] +
        Math.abs(a[0] - b[0]) +
        Math.abs(a[1] - b[1]) +
        (goesLevel === level ? 0 : TURN) +
        ends +
        price(piece(a, b), lines);
      if (total < cost[next]) {
        cost[next] = total;
        before[next] = at;
        heap.push(next, total + guess(nx, ny));
      }
    }
  }
  if (last < 0) {
    return null;
  }
  const way = [];
  for (let at = last; at >= 0; at = before[at]) {
    way.unshift([xs[(at >> 1) % xs.length], ys[Math.floor((at >> 1) / xs.length)]]);
  }
  return way;
}

/** The nearest first; a binary heap. */
class Heap {
  constructor() {
    this.items = [];
  }

  get size() {
    return this.items.length;
  }

  push(item, rank) {
    const { items } = this;
    items.push({ item, rank });
    let i = items.length - 1;
    while (i > 0) {
      const up = (i - 1) >> 1;
      if (items[up].rank <= items[i].rank) {
        break;
      }
      [items[up], items[i]] = [items[i], items[up]];
      i = up;
    }
  }

  pop() {
    const { items } = this;
    const top = items[0];
    const last = items.pop();
    if (items.length) {
      items[0] = last;
      let i = 0;
      for (;;) {
        const [l, r] = [2 * i + 1, 2 * i + 2];
        let least = i;
        if (l < items.length && items[l].rank < items[least].rank) {
          least = l;
        }
        if (r < items.length && items[r].rank < items[least].rank) {
          least = r;
        }
        if (least === i) {
          break;
        }
        [items[least], items[i]] = [items[i], items[least]];
        i = least;
      }
    }
    return top.item;
  }
}

/**
 * A way through the corners a person gave a line: they stay, and the pieces between them are made orthogonal.
 *
 * @param via points
 */
export function through(from, to, via) {
  const points = [from.at, stub(from), ...via, stub(to), to.at];
  const way = [points[0], points[1]];
  let level = OUT[from.side][0] !== 0;
  for (const point of points.slice(2)) {
    const last = way.at(-1);
    if (Math.abs(last[0] - point[0]) > 0.5 && Math.abs(last[1] - point[1]) > 0.5) {
      way.push(level ? [point[0], last[1]] : [last[0], point[1]]);
      level = !level;
    }
    way.push(point);
  }
  return simplified(way);
}

/** The sides of two boxes that face each other. */
export function facing(a, b) {
  const gapX = Math.max(b.x - right(a), a.x - right(b));
  const gapY = Math.max(b.y - bottom(a), a.y - bottom(b));
  if (gapX >= gapY) {
    return b.x + b.width / 2 >= a.x + a.width / 2 ? ['right', 'left'] : ['left', 'right'];
  }
  return b.y + b.height / 2 >= a.y + a.height / 2 ? ['bottom', 'top'] : ['top', 'bottom'];
}
