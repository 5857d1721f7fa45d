// What is on a drawing: boxes within boxes, ports at their borders, lines. It keeps what the server sent beside the shapes of
// the page, moves these, and finds ways for lines whose ends have moved. It knows shapes, not what they mean.
import { around, atBorder, bottom, labelPlace, middle, overlaps, pairs, pathOf, right } from './geometry.js';
import { facing, piecesOf, route, through } from './router.js';
import { boxShape, defs, lineShape, shapeLine, svg } from './shapes.js';

const PORT = 6;
const LETTER = 6.3;
const ROW = 14;
/** So long the ways of lines are searched for while something is dragged, ms a frame. */
const PATIENCE = 7;

const OUTWARD = { left: [-1, 0], right: [1, 0], top: [0, -1], bottom: [0, 1] };
const OPPOSITE = { left: 'right', right: 'left', top: 'bottom', bottom: 'top' };

export class Scene {
  /**
   * @param sheet an svg element
   * @param over another above it, for what moves: only that is painted anew while something is dragged
   */
  constructor(sheet, over, editable) {
    this.sheet = sheet;
    this.over = over;
    this.editable = editable;
    this.boxes = new Map();
    this.ports = new Map();
    this.lines = new Map();
    this.boxLayer = svg('g', { class: 'boxes' });
    this.lineLayer = svg('g', { class: 'edges' });
    this.topLayer = svg('g', { class: 'aids' });
    this.liftedBoxes = svg('g');
    this.liftedLines = svg('g');
    sheet.replaceChildren(defs(), this.boxLayer, this.lineLayer);
    over.replaceChildren(this.liftedBoxes, this.liftedLines, this.topLayer);
  }

  /** Shows what the server sent; what is drawn already and has not changed stays the same node of the page. */
  show(data) {
    const known = this.boxes;
    this.boxes = new Map();
    this.ports = new Map();
    this.children = new Map();
    for (const sent of data.boxes) {
      const { x, y, placed: _, ...rest } = sent;
      const sign = JSON.stringify(rest);
      const before = known.get(sent.key);
      const box = { ...sent, sign };
      if (before?.sign === sign) {
        Object.assign(box, { node: before.node, inner: before.inner });
        box.inner.replaceChildren();
      } else {
        box.node = boxShape(box, this.editable);
        box.inner = svg('g', { class: 'inner' });
        box.node.append(box.inner);
      }
      this.boxes.set(box.key, box);
      this.children.set(box.parent, [...(this.children.get(box.parent) ?? []), box]);
      this.move(box, x, y);
      box.ports.forEach((port) => {
        const node = [...box.node.querySelectorAll(':scope > .port')].find((each) => each.dataset.key === port.key);
        this.ports.set(port.key, { port, box, node });
      });
    }
    this.stack();
    this.showLines(data.lines);
  }

  /** Puts the nodes of boxes into those around them, in the order of the model. */
  stack() {
    const top = [];
    this.boxes.forEach((box) =>
      (this.boxes.get(box.parent)?.inner ?? { append: (node) => top.push(node) }).append(box.node),
    );
    this.boxLayer.replaceChildren(...top);
  }

  showLines(sent) {
    const known = this.lines;
    this.lines = new Map();
    const nodes = [];
    for (const data of sent) {
      const before = known.get(data.key);
      const same = before && before.label === data.label && before.problem === data.problem && before.to === data.to;
      const line = { ...data, node: same ? before.node : lineShape(data, this.editable) };
      line.points = data.points.length ? pairs(data.points) : this.kept(before, line);
      line.via = pairs(data.via);
      this.lines.set(line.key, line);
      nodes.push(line.node);
    }
    this.lineLayer.replaceChildren(...nodes);
    this.route([...this.lines.values()].filter((line) => !line.points));
    this.lines.forEach((line) => this.drawLine(line));
  }

  /** The way a line had, if its ends still stand where it leads and nothing came in between; else null. */
  kept(before, line) {
    if (!before?.points || before.via.length || line.via.length) {
      return null;
    }
    const ends = [line.from, line.to].map((end) => ({
      box: this.boxOf(end),
      port: this.ports.has(end) ? this.portAt(end) : null,
    }));
    const [from, to] = ends.map(({ box }) => box);
    const holds = ends.every(({ box, port }, i) => {
      const [x, y] = i ? before.points.at(-1) : before.points[0];
      if (port) {
        return Math.abs(x - port[0]) + Math.abs(y - port[1]) < PORT + 1;
      }
      const rect = this.absolute(box);
      const place = atBorder(rect, [x, y]);
      return Math.abs(rect.x + place.x - x) + Math.abs(rect.y + place.y - y) < 1;
    });
    const own = new Set([from, to]);
    const isFree = () => {
      const pieces = this.pieces(before);
      return this.obstacleBoxes(line).every(
        (box) => own.has(box) || pieces.every((piece) => !overlaps(piece, this.absolute(box), -1)),
      );
    };
    line.at = holds && before.at;
    return holds && isFree() ? before.points : null;
  }

  /** Puts boxes that stand in the same box above the sheet, until they are put down again. */
  lift(boxes) {
    this.putDown();
    const outer = this.boxes.get(boxes[0]?.parent);
    const { x, y } = outer ? this.absolute(outer) : { x: 0, y: 0 };
    this.liftedBoxes.setAttribute('transform', `translate(${x} ${y})`);
    this.lifted = boxes.map((box) => ({ node: box.node, host: box.node.parentNode, before: box.node.nextSibling }));
    this.liftedBoxes.append(...boxes.map((box) => box.node));
  }

  liftLines(lines) {
    if (this.lifted) {
      lines
        .filter((line) => line.node.parentNode === this.lineLayer)
        .forEach((line) => this.liftedLines.append(line.node));
    }
  }

  putDown() {
    this.lifted?.reverse().forEach(({ node, host, before }) => host.insertBefore(node, before));
    this.lifted = null;
    this.lineLayer.append(...this.liftedLines.childNodes);
  }

  /** The rectangle of a box from the upper left corner of the drawing. */
  absolute(box) {
    let { x, y } = box;
    for (let at = this.boxes.get(box.parent); at; at = this.boxes.get(at.parent)) {
      x += at.x;
      y += at.y;
    }
    return { x, y, width: box.width, height: box.height };
  }

  /** The boxes around a box, from the inside out. */
  surroundings(box) {
    const all = [];
    for (let at = this.boxes.get(box.parent); at; at = this.boxes.get(at.parent)) {
      all.push(at);
    }
    return all;
  }

  isWithin(box, outer) {
    return box.key.startsWith(`${outer.key}.`) && this.surroundings(box).includes(outer);
  }

  inside(box) {
    return this.children.get(box.key) ?? [];
  }

  /** All boxes in a box, however deep. */
  below(box) {
    return this.inside(box).flatMap((each) => [each, ...this.below(each)]);
  }

  get all() {
    const tops = this.children.get('') ?? [];
    const rects = tops.flatMap((box) => [this.absolute(box), ...box.ports.map((port) => this.nameRect(box, port))]);
    this.lines.forEach((line) => {
      line.points?.forEach(([x, y]) => rects.push({ x, y, width: 0, height: 0 }));
      if (line.labelRect) {
        rects.push(line.labelRect);
      }
    });
    return around(rects) ?? { x: 0, y: 0, width: 1, height: 1 };
  }

  /** About where the name of a port stands. */
  nameRect(box, port) {
    const { x, y } = this.absolute(box);
    const width = box.open && port.side !== 'left' ? port.name.length * LETTER + 2 * PORT : 0;
    const left = box.open && port.side === 'left' ? port.name.length * LETTER + 2 * PORT : 0;
    return { x: x + port.x - left, y: y + port.y - 2 * PORT, width: left + width, height: 4 * PORT };
  }

  move(box, x, y) {
    box.x = x;
    box.y = y;
    box.node.setAttribute('transform', `translate(${x} ${y})`);
  }

  resize(box, width, height) {
    const scale = { x: width / box.width, y: height / box.height };
    box.width = width;
    box.height = height;
    for (const port of box.ports) {
      const aside = port.side === 'left' || port.side === 'right';
      port.x = aside ? (port.side === 'left' ? 0 : width) : port.x * scale.x;
      port.y = aside ? Math.min(port.y * (scale.y < 1 ? scale.y : 1), height) : port.side === 'top' ? 0 : height;
    }
    this.redraw(box);
  }

  /** Puts a port at the place of the border nearest to a point of its box. */
  movePort(key, point) {
    const { port, box } = this.ports.get(key);
    Object.assign(port, atBorder({ x: 0, y: 0, width: box.width, height: box.height }, point));
    this.redraw(box);
  }

  redraw(box) {
    const node = boxShape(box, this.editable);
    for (const name of ['selected', 'chosen']) {
      node.classList.toggle(name, box.node.classList.contains(name));
    }
    node.tabIndex = box.node.tabIndex;
    node.append(box.inner);
    const focused = box.node.contains(document.activeElement);
    box.node.replaceWith(node);
    box.node = node;
    box.ports.forEach((port) => {
      const found = [...node.querySelectorAll(':scope > .port')].find((each) => each.dataset.key === port.key);
      this.ports.set(port.key, { port, box, node: found });
    });
    this.move(box, box.x, box.y);
    if (focused) {
      node.focus({ preventScroll: true });
    }
  }

  /** A box grows until it holds what stands in it. */
  enclose(box, margin = 24) {
    const inner = this.inside(box);
    const width = Math.max(box.width, ...inner.map((each) => right(each) + margin));
    const height = Math.max(box.height, ...inner.map((each) => bottom(each) + margin));
    if (width > box.width || height > box.height) {
      this.resize(box, width, height);
    }
    const outer = this.boxes.get(box.parent);
    if (outer) {
      this.enclose(outer, margin);
    }
  }

  boxOf(end) {
    return this.boxes.get(end) ?? this.ports.get(end)?.box;
  }

  /** The lines that begin or end at some boxes, or at anything within them. */
  linesAt(boxes) {
    const within = new Set(boxes.flatMap((box) => [box, ...this.below(box)]).map((box) => box.key));
    return [...this.lines.values()].filter(
      (line) => within.has(this.boxOf(line.from)?.key) || within.has(this.boxOf(line.to)?.key),
    );
  }

  /** The pieces of a line, found once for each way it has. */
  pieces(line) {
    if (line.piecesOf !== line.points) {
      line.piecesOf = line.points;
      line.pieces = piecesOf(line.points ?? []);
    }
    return line.pieces;
  }

  /** The lines that pass through boxes they do not belong to. */
  linesThrough(boxes) {
    const rects = boxes.map((box) => ({ box, rect: this.absolute(box) }));
    return [...this.lines.values()].filter((line) =>
      rects.some(
        ({ box, rect }) =>
          this.pieces(line).some((piece) => overlaps(piece, rect, -1)) && !this.isEndOrAround(box, line),
      ),
    );
  }

  /** Whether a line begins or ends at a box or inside it. */
  isEndOrAround(box, line) {
    return [this.boxOf(line.from), this.boxOf(line.to)].some((end) => end === box || this.isWithin(end, box));
  }

  /** Finds ways for some lines as everything stands now. While something is dragged the rest waits its turn. */
  route(lines, isHasty = false) {
    const until = performance.now() + PATIENCE;
    const rest = new Set(lines);
    const ends = this.ends(lines);
    const pieces = [...this.lines.values()]
      .filter((line) => line.points && !rest.has(line))
      .flatMap((line) => this.pieces(line));
    for (const line of lines) {
      const [from, to] = ends.get(line);
      const isLate = isHasty && performance.now() > until;
      line.points = line.via.length
        ? through(from, to, line.via)
        : route(from, to, isLate ? [] : this.obstacles(line), pieces);
      line.at = null;
      line.labelRect = null;
      pieces.push(...this.pieces(line));
    }
  }

  obstacles(line) {
    return this.obstacleBoxes(line).map((box) => this.absolute(box));
  }

  /** The boxes a line has to go around: not those that an end stands in. */
  obstacleBoxes(line) {
    const [from, to] = [this.boxOf(line.from), this.boxOf(line.to)];
    const containers = new Set(['', ...[...this.surroundings(from), ...this.surroundings(to)].map((box) => box.key)]);
    const found = [];
    for (const key of containers) {
      for (const box of this.children.get(key) ?? []) {
        if (!containers.has(box.key)) {
          found.push(box);
        }
      }
    }
    return found;
  }

  /** Where lines begin and end: a port has its place; the lines at a side of a box are spread over it in order. */
  ends(lines) {
    const ends = new Map();
    const slots = new Map();
    for (const line of lines) {
      const [from, to] = [this.boxOf(line.from), this.boxOf(line.to)];
      const sides = facing(this.absolute(from), this.absolute(to));
      const pair = [
        [line.from, from, to, sides[0]],
        [line.to, to, from, sides[1]],
      ].map(([end, box, other, side], i) => {
        if (this.ports.has(end)) {
          return this.portEnd(end, this.isWithin(other, box));
        }
        const inward = this.isWithin(other, box);
        const slot = { side: inward ? OPPOSITE[side] : side, box, other, at: null };
        const name = `${box.key} ${slot.side}`;
        slots.set(name, [...(slots.get(name) ?? []), { slot, line, i }]);
        return slot;
      });
      ends.set(line, pair);
    }
    slots.forEach((group) => this.spread(group));
    return ends;
  }

  portEnd(key, isInward) {
    const { port, box } = this.ports.get(key);
    const rect = this.absolute(box);
    const side = isInward ? OPPOSITE[port.side] : port.side;
    const [dx, dy] = OUTWARD[side];
    return { at: [rect.x + port.x + dx * PORT, rect.y + port.y + dy * PORT], side };
  }

  spread(group) {
    const { slot } = group[0];
    const rect = this.absolute(slot.box);
    const level = slot.side === 'top' || slot.side === 'bottom';
    const rank = ({ slot: each }) => middle(this.absolute(each.other))[level ? 0 : 1];
    group
      .sort((a, b) => rank(a) - rank(b))
      .forEach(({ slot: each }, i) => {
        const share = (i + 1) / (group.length + 1);
        each.at = {
          left: [rect.x, rect.y + rect.height * share],
          right: [right(rect), rect.y + rect.height * share],
          top: [rect.x + rect.width * share, rect.y],
          bottom: [rect.x + rect.width * share, bottom(rect)],
        }[each.side];
      });
  }

  drawLine(line) {
    const label = line.label ? { width: (line.label.length + (line.problem ? 2 : 0)) * LETTER, height: ROW } : null;
    const at = line.at ?? (label && labelPlace(line.points, label, this.coverage(line)));
    line.labelRect = label && at && { x: at[0], y: at[1] - ROW + 3, ...label };
    shapeLine(line, pathOf(line.points), at ?? [0, 0]);
  }

  /** How bad it is what the label of a line would cover: a box is worse than a label, and that than a line. */
  coverage(line) {
    const boxes = this.obstacles(line);
    const lines = [...this.lines.values()].filter((each) => each.points);
    const labels = lines.filter((each) => each !== line && each.labelRect).map((each) => each.labelRect);
    return (place) => {
      const covers = (rect) => overlaps(place, rect);
      const crossed = lines.filter((each) => this.pieces(each).some(covers)).length;
      return 100 * boxes.filter(covers).length + 10 * labels.filter(covers).length + crossed;
    };
  }

  /** Draws lines that help while something is done, and takes those before away. */
  aids(...nodes) {
    this.topLayer.replaceChildren(...nodes);
  }

  portAt(key) {
    const { port, box } = this.ports.get(key);
    const rect = this.absolute(box);
    return [rect.x + port.x, rect.y + port.y];
  }

  /** A box or port by its key: a rectangle from the upper left corner of the drawing. */
  place(key) {
    if (this.boxes.has(key)) {
      return this.absolute(this.boxes.get(key));
    }
    const [x, y] = this.portAt(key);
    return { x: x - PORT, y: y - PORT, width: 2 * PORT, height: 2 * PORT };
  }

  nodeOf(key) {
    return this.boxes.get(key)?.node ?? this.ports.get(key)?.node ?? this.lines.get(key)?.node;
  }

  /** x, y, width and height of boxes, x and y of ports as they are shown, so that a new layout can leave it there. */
  get seen() {
    return Object.fromEntries([
      ...[...this.boxes.values()].map((box) => [box.key, [box.x, box.y, box.width, box.height]]),
      ...[...this.ports.values()].map(({ port }) => [port.key, [port.x, port.y]]),
    ]);
  }
}
