// The keys of a drawing. Arrows go from box to box, comma and full stop through the ports and lines of one; Alt and arrows
// move, with Shift they resize, a port along its border and a line at its longest piece; C joins what is chosen with what
// the arrows reach next, Enter takes it; of a line C leads the second end elsewhere, Shift C the first.
import { isTyping } from '../frame/keys.js';
import { longestPiece, opened, shifted } from './bending.js';
import { middle } from './geometry.js';
import { svg } from './shapes.js';

const STEP = 10;
const SMALL_STEP = 1;
/** Steps that follow each other within this time are one edit, ms. */
const A_WHILE = 600;

const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** The nearest of some boxes in the direction of an arrow key, sideways distance counting double. */
export function neighbour(from, others, [dx, dy]) {
  const [x, y] = middle(from);
  return others
    .map(({ key, rect }) => {
      const [ox, oy] = middle(rect);
      return { key, ahead: (ox - x) * dx + (oy - y) * dy, aside: Math.abs((ox - x) * dy) + Math.abs((oy - y) * dx) };
    })
    .filter(({ ahead }) => ahead > 4)
    .sort((a, b) => a.ahead + 2 * a.aside - b.ahead - 2 * b.aside)[0]?.key;
}

export function startKeyboard(canvas) {
  const nudging = { timer: 0, keys: new Set() };
  document.addEventListener('keydown', (event) => {
    if (isTyping(event) || event.defaultPrevented || event.target.closest?.('[role="menu"], dialog')) {
      return;
    }
    const isHere = canvas.host.contains(event.target);
    const act = isHere
      ? (joining(canvas, event) ?? onCanvas(canvas, event, nudging) ?? sight(canvas, event))
      : sight(canvas, event);
    if (act) {
      event.preventDefault();
      act();
    }
  });
  document.addEventListener('keydown', (event) => {
    if (
      event.key === ' ' &&
      !isTyping(event) &&
      !canvas.host.contains(event.target) &&
      event.target === document.body
    ) {
      event.preventDefault();
      canvas.panning = true;
    }
  });
  document.addEventListener('keyup', (event) => {
    if (event.key === ' ') {
      canvas.panning = false;
    }
  });
}

/** What works wherever the focus is. */
function sight(canvas, event) {
  if (event.ctrlKey || event.metaKey || event.altKey) {
    return null;
  }
  return {
    '+': () => canvas.viewport.closer(),
    '=': () => canvas.viewport.closer(),
    '-': () => canvas.viewport.farther(),
    0: () => canvas.fit(),
  }[event.key];
}

function onCanvas(canvas, event, nudging) {
  const arrow = ARROWS[event.key];
  const isPlain = !event.ctrlKey && !event.metaKey && !event.altKey;
  if (arrow && event.altKey && canvas.editable) {
    return () => nudged(canvas, arrow, event, nudging);
  }
  if (arrow && isPlain) {
    return () => step(canvas, arrow, event.shiftKey);
  }
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a') {
    return () => canvas.choose(beside(canvas).map(({ key }) => key));
  }
  const box = canvas.scene.boxes.get(canvas.current);
  const isMenu =
    event.key === 'ContextMenu' || (event.shiftKey && event.key === 'F10') || (isPlain && event.key === 'm');
  if (isMenu && canvas.acts.menu && canvas.editable) {
    return () => canvas.acts.menu(canvas);
  }
  const own =
    canvas.acts.keys?.[`${event.ctrlKey || event.metaKey ? 'Ctrl ' : ''}${event.shiftKey ? 'Shift ' : ''}${event.key}`];
  if (own && (canvas.editable || own.forAll)) {
    return () => own.run(canvas);
  }
  if (!isPlain) {
    return null;
  }
  return {
    Enter: () => box && canvas.acts.enter?.(box),
    ' ': () => box?.openable && canvas.acts.toggle?.(box),
    ',': () => around(canvas, -1),
    '.': () => around(canvas, 1),
    Escape: () => canvas.choose([]),
    c: canvas.editable ? () => beginJoin(canvas) : undefined,
    C: canvas.editable ? () => beginJoin(canvas, 'from') : undefined,
  }[event.key];
}

/** What can be gone to beside the chosen one: the boxes that stand in the same box. */
function beside(canvas) {
  const current = canvas.scene.boxOf(canvas.current);
  return (canvas.scene.children.get(current?.parent ?? '') ?? []).map((box) => ({
    key: box.key,
    rect: canvas.scene.absolute(box),
  }));
}

/** Goes to the next box that way; where none is, into the box or out of it. */
function step(canvas, arrow, isMore) {
  const { scene } = canvas;
  const box = scene.boxOf(canvas.current) ?? scene.boxOf(scene.lines.get(canvas.current)?.from);
  if (!box) {
    canvas.go(scene.boxes.keys().next().value);
    return;
  }
  const others = beside(canvas).filter(({ key }) => key !== box.key);
  const inner = scene.inside(box).map((each) => ({ key: each.key, rect: scene.absolute(each) }));
  const next =
    neighbour(scene.absolute(box), others, arrow) ??
    (arrow[0] + arrow[1] > 0 ? inner[0]?.key : box.parent || undefined);
  if (next && isMore) {
    canvas.choose([next], true);
    scene.nodeOf(next).focus({ preventScroll: true });
  } else if (next) {
    canvas.go(next);
  }
}

/** Goes through the ports and lines of a box and back to it. */
function around(canvas, by) {
  const { scene } = canvas;
  const at = canvas.current;
  const box = scene.boxOf(at) ?? scene.boxOf(canvas.home) ?? scene.boxOf(scene.lines.get(at)?.from);
  if (!box) {
    return;
  }
  canvas.home = box.key;
  const lines = [...scene.lines.values()].filter(
    (line) => scene.boxOf(line.from) === box || scene.boxOf(line.to) === box,
  );
  const stops = [box.key, ...box.ports.map((port) => port.key), ...lines.map((line) => line.key)];
  canvas.go(stops[(stops.indexOf(at) + by + stops.length) % stops.length]);
}

function nudged(canvas, arrow, event, nudging) {
  const { scene, current } = canvas;
  if (scene.lines.has(current)) {
    bend(canvas, scene.lines.get(current), arrow, nudging);
  } else if (scene.ports.has(current)) {
    slide(canvas, current, arrow, nudging);
  } else {
    nudge(canvas, arrow, event, nudging);
  }
}

/** Moves the longest piece of a line sideways. */
function bend(canvas, line, [dx, dy], nudging) {
  const points = opened(line.points);
  const at = longestPiece(points);
  const isLevel = Math.abs(points[at][1] - points[at + 1][1]) < 1;
  if (isLevel ? dy : dx) {
    line.via = shifted(points, at, [dx * STEP, dy * STEP]).map(([x, y]) => [Math.round(x), Math.round(y)]);
    canvas.scene.route([line]);
    canvas.scene.drawLine(line);
    clearTimeout(nudging.timer);
    nudging.timer = setTimeout(() => canvas.acts.bend?.(line, line.via), A_WHILE);
  }
}

/** Moves a port along the border of its box. */
function slide(canvas, key, [dx, dy], nudging) {
  const { scene } = canvas;
  const { port } = scene.ports.get(key);
  scene.movePort(key, [port.x + dx * STEP, port.y + dy * STEP]);
  scene.nodeOf(key).focus({ preventScroll: true });
  const lines = [...scene.lines.values()].filter((line) => line.from === key || line.to === key);
  scene.route(lines);
  lines.forEach((line) => scene.drawLine(line));
  clearTimeout(nudging.timer);
  nudging.timer = setTimeout(() => canvas.acts.arrange?.([{ key, at: [port.x, port.y] }]), A_WHILE);
}

function nudge(canvas, [dx, dy], event, nudging) {
  const { scene } = canvas;
  const size = event.ctrlKey || event.metaKey ? SMALL_STEP : STEP;
  const boxes = canvas.boxes;
  for (const box of boxes) {
    if (event.shiftKey) {
      scene.resize(box, Math.max(60, box.width + dx * size), Math.max(44, box.height + dy * size));
    } else {
      scene.move(box, box.x + dx * size, box.y + dy * size);
    }
    nudging.keys.add(box.key);
  }
  const lines = scene.linesAt(boxes);
  scene.route(lines);
  lines.forEach((line) => scene.drawLine(line));
  clearTimeout(nudging.timer);
  nudging.timer = setTimeout(() => {
    const changes = [...nudging.keys]
      .map((key) => scene.boxes.get(key))
      .filter(Boolean)
      .map((box) => ({ key: box.key, at: [box.x, box.y], size: event.shiftKey ? [box.width, box.height] : undefined }));
    nudging.keys.clear();
    canvas.acts.arrange?.(changes);
  }, A_WHILE);
}

/**
 * Looks for the other end of a line that begins at what is chosen; of a line for another place of one of its ends.
 *
 * @param end of a line, the one that is led elsewhere
 */
export function beginJoin(canvas, end = 'to') {
  const line = canvas.scene.lines.get(canvas.current);
  if (line) {
    const stays = end === 'to' ? line.from : line.to;
    canvas.go(canvas.scene.boxOf(line[end]).key);
    canvas.join = stays;
    canvas.moved = { line, end };
  } else {
    canvas.join = canvas.current;
    canvas.moved = null;
  }
  if (canvas.join) {
    canvas.host.classList.add('joining');
    const ports = canvas.scene.ports.size ? ', its ports with the full stop' : '';
    canvas.acts.say?.(`Go to the other end with the arrow keys${ports}; Enter joins, Escape cancels.`);
    drawJoin(canvas);
  }
}

function drawJoin(canvas) {
  const centre = (key) => middle(canvas.scene.place(key)).join(' ');
  const isBox = canvas.current && !canvas.scene.lines.has(canvas.current);
  canvas.scene.aids(
    ...(isBox ? [svg('path', { class: 'joining', d: `M${centre(canvas.join)}L${centre(canvas.current)}` })] : []),
  );
}

/** While the other end of a line is looked for. */
function joining(canvas, event) {
  if (!canvas.join || event.ctrlKey || event.metaKey || event.altKey) {
    return null;
  }
  const leave = () => {
    canvas.join = null;
    canvas.host.classList.remove('joining');
    canvas.scene.aids();
  };
  if (event.key === 'Escape') {
    return leave;
  }
  if (event.key === 'Enter') {
    const { join: from, current: to, moved } = canvas;
    return () => {
      leave();
      if (moved) {
        canvas.acts.reend?.(moved.line, moved.end, to);
      } else {
        canvas.acts.connect?.(from, to);
      }
    };
  }
  const arrow = ARROWS[event.key];
  const go = arrow
    ? () => step(canvas, arrow, false)
    : { ',': () => around(canvas, -1), '.': () => around(canvas, 1) }[event.key];
  return go
    ? () => {
        go();
        drawJoin(canvas);
      }
    : null;
}
