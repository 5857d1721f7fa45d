// What the pointer does on a drawing: moves, resizes, joins, bends, chooses, pans and zooms. Nothing is saved before it is let
// go, and Escape puts everything back.
import { swallowClick } from '../frame/drag.js';
import { around, contains, right, bottom, snap } from './geometry.js';
import { nearestPiece, opened, shifted } from './bending.js';
import { svg } from './shapes.js';

/** A press that moves less is a click, px. */
const THRESHOLD = 4;
const REACH = 6;
const MARGIN = 12;
const HEAD = 44;
const SMALLEST = [130, 54];
const ZOOM = 1.25;

export function startGestures(canvas) {
  const { host } = canvas;
  host.addEventListener('pointerdown', (event) => {
    const gesture = begin(canvas, event);
    if (gesture) {
      track(event, gesture);
    }
  });
  host.addEventListener('dragstart', (event) => event.preventDefault());
  host.addEventListener(
    'wheel',
    (event) => {
      if (!event.ctrlKey && isBelowReach(host)) {
        return;
      }
      event.preventDefault();
      if (event.ctrlKey) {
        canvas.viewport.zoom(event.deltaY < 0 ? ZOOM : 1 / ZOOM, event.clientX, event.clientY);
      } else {
        canvas.viewport.pan(event.shiftKey ? -event.deltaY : -event.deltaX, event.shiftKey ? 0 : -event.deltaY);
      }
    },
    { passive: false },
  );
  host.addEventListener('dblclick', (event) => {
    const key = canvas.under(event, '.box');
    const box = canvas.scene.boxes.get(key);
    if (box && !event.target.closest('.toggle')) {
      canvas.acts.enter?.(box);
    }
  });
  host.addEventListener('contextmenu', (event) => {
    const key = canvas.under(event, '.port, .box, .edge');
    if (canvas.acts.menu && canvas.editable) {
      event.preventDefault();
      if (key && !canvas.chosen.has(key)) {
        canvas.go(key);
      }
      canvas.acts.menu(canvas, event.clientX, event.clientY);
    }
  });
}

/** Whether something below the drawing, such as its text in a narrow window, is reached by scrolling around it. */
const isBelowReach = ({ parentElement: around }) => around.scrollHeight > around.clientHeight + 1;

/** What a press begins; null for none. */
function begin(canvas, event) {
  if (event.button === 1 || (event.button === 0 && canvas.panning)) {
    event.preventDefault();
    return pan(canvas);
  }
  if (event.button !== 0 || event.target.closest('.on-canvas')) {
    return null;
  }
  const { editable, scene } = canvas;
  const toggle = event.target.closest('.toggle');
  if (toggle) {
    return click(() => canvas.acts.toggle?.(scene.boxes.get(toggle.closest('.box').dataset.key)));
  }
  const end = event.target.closest('.end');
  if (end && editable) {
    return reend(canvas, scene.lines.get(end.closest('.edge').dataset.line), end.dataset.end);
  }
  const port = event.target.closest('.port');
  if (port) {
    return editable ? pressPort(canvas, port.dataset.key, event) : click(() => canvas.go(port.dataset.key));
  }
  const line = event.target.closest('.edge');
  if (line) {
    return pressLine(canvas, line.dataset.line, event);
  }
  const box = scene.boxes.get(event.target.closest('.box')?.dataset.key);
  if (!box) {
    return editable ? marquee(canvas, null, event) : pan(canvas);
  }
  if (!editable) {
    return { ...pan(canvas), click: () => canvas.go(box.key) };
  }
  return pressBox(canvas, box, event);
}

const click = (run) => ({ click: run });

function track(pressed, gesture) {
  let isStarted = false;
  let frame = 0;
  let last = pressed;
  const step = () => {
    frame = 0;
    gesture.move?.(last, pressed);
  };
  const onMove = (event) => {
    if (!isStarted && Math.hypot(event.clientX - pressed.clientX, event.clientY - pressed.clientY) < THRESHOLD) {
      return;
    }
    if (!isStarted) {
      isStarted = true;
      getSelection()?.removeAllRanges();
      gesture.start?.();
    }
    last = event;
    frame ||= requestAnimationFrame(step);
  };
  const leave = () => {
    cancelAnimationFrame(frame);
    removeEventListener('pointermove', onMove);
    removeEventListener('pointerup', onUp);
    removeEventListener('pointercancel', onCancel);
    removeEventListener('keydown', onKey, true);
  };
  const onUp = (event) => {
    leave();
    if (isStarted) {
      gesture.move?.(event, pressed);
      swallowClick();
      gesture.drop?.(event);
    } else {
      gesture.click?.(event);
    }
  };
  const onCancel = () => {
    leave();
    if (isStarted) {
      gesture.cancel?.();
    }
  };
  const onKey = (event) => {
    if (event.key === 'Escape' && isStarted) {
      event.preventDefault();
      event.stopPropagation();
      onCancel();
    }
  };
  addEventListener('pointermove', onMove);
  addEventListener('pointerup', onUp);
  addEventListener('pointercancel', onCancel);
  addEventListener('keydown', onKey, true);
}

const delta = (canvas, event, pressed) => [
  (event.clientX - pressed.clientX) / canvas.viewport.scale,
  (event.clientY - pressed.clientY) / canvas.viewport.scale,
];

function pan(canvas) {
  let before = null;
  return {
    start: () => canvas.host.classList.add('panning'),
    move: (event, pressed) => {
      const from = before ?? pressed;
      canvas.viewport.pan(event.clientX - from.clientX, event.clientY - from.clientY);
      before = event;
    },
    drop: () => canvas.host.classList.remove('panning'),
    cancel: () => canvas.host.classList.remove('panning'),
  };
}

/** A press on a box: its border joins, its corner resizes, its head or body moves it; in an open box the body is ground. */
function pressBox(canvas, box, event) {
  const choose = (each) => (each.shiftKey || each.ctrlKey || each.metaKey ? canvas.flip(box.key) : canvas.go(box.key));
  if (event.target.closest('.grip')) {
    return { ...resize(canvas, box), click: choose };
  }
  if (event.target.closest('.join, .border')) {
    return { ...connect(canvas, box.key), click: choose };
  }
  const isGround = canvas.scene.inside(box).length > 0 && canvas.point(event)[1] > canvas.scene.absolute(box).y + HEAD;
  return isGround ? { ...marquee(canvas, box, event), click: choose } : { ...move(canvas, box, event), click: choose };
}

/** A press on a port joins it; with Alt it is moved along the border. */
function pressPort(canvas, key, event) {
  const choose = () => (event.shiftKey ? canvas.flip(key) : canvas.go(key));
  return event.altKey ? { ...movePort(canvas, key), click: choose } : { ...connect(canvas, key), click: choose };
}

function move(canvas, box, pressed) {
  const { scene } = canvas;
  let boxes;
  let starts;
  let lines;
  let others;
  return {
    start: () => {
      if (!canvas.chosen.has(box.key)) {
        canvas.choose([box.key], pressed.shiftKey);
      }
      boxes = canvas.boxes;
      starts = boxes.map(({ x, y }) => [x, y]);
      lines = scene.linesAt(boxes);
      const moving = new Set(boxes);
      others = (scene.children.get(box.parent) ?? []).filter((each) => !moving.has(each));
      canvas.host.classList.add('moving');
      scene.lift(boxes);
    },
    move: (event) => {
      const [dx, dy] = delta(canvas, event, pressed);
      const lead = starts[boxes.indexOf(box)] ?? starts[0];
      const rect = { x: lead[0] + dx, y: lead[1] + dy, width: box.width, height: box.height };
      const near = snap(rect, others, event.altKey ? -1 : REACH / canvas.viewport.scale);
      boxes.forEach((each, i) => {
        const floor = each.parent ? [MARGIN, HEAD] : [-Infinity, -Infinity];
        scene.move(
          each,
          Math.max(floor[0], starts[i][0] + dx + near.dx),
          Math.max(floor[1], starts[i][1] + dy + near.dy),
        );
      });
      const outer = scene.boxes.get(box.parent);
      if (outer) {
        scene.enclose(outer);
      }
      follow(canvas, boxes, lines);
      drawGuides(canvas, outer, near.guides);
    },
    drop: () => {
      finish(canvas);
      canvas.acts.arrange?.(boxes.map((each) => ({ key: each.key, at: [each.x, each.y] })));
    },
    cancel: () => {
      boxes.forEach((each, i) => scene.move(each, ...starts[i]));
      follow(canvas, boxes, lines);
      finish(canvas);
    },
  };
}

/** Leads the lines of moved boxes, and those they came to stand in the way of, anew. */
function follow(canvas, boxes, lines) {
  const { scene } = canvas;
  const all = [...new Set([...lines, ...scene.linesThrough(boxes)])];
  scene.liftLines(all);
  scene.route(all, true);
  all.forEach((line) => scene.drawLine(line));
}

function finish(canvas) {
  canvas.scene.putDown();
  canvas.scene.aids();
  canvas.host.classList.remove('moving', 'joining');
  canvas.sheet.querySelectorAll('.into').forEach((node) => node.classList.remove('into'));
  canvas.catchUp();
}

function drawGuides(canvas, outer, guides) {
  const { x, y } = outer ? canvas.scene.absolute(outer) : { x: 0, y: 0 };
  canvas.scene.aids(
    ...guides.map(([a, b]) => svg('path', { class: 'guide', d: `M${a[0] + x} ${a[1] + y}L${b[0] + x} ${b[1] + y}` })),
  );
}

function resize(canvas, box) {
  const { scene } = canvas;
  const before = { width: box.width, height: box.height, ports: structuredClone(box.ports) };
  const lines = scene.linesAt([box]);
  return {
    start: () => canvas.go(box.key),
    move: (event, pressed) => {
      const [dx, dy] = delta(canvas, event, pressed);
      const inner = around(scene.inside(box));
      const width = Math.max(SMALLEST[0], inner ? right(inner) + MARGIN : 0, before.width + dx);
      const height = Math.max(SMALLEST[1], inner ? bottom(inner) + MARGIN : 0, before.height + dy);
      scene.resize(box, Math.round(width), Math.round(height));
      follow(canvas, [box], lines);
    },
    drop: () => canvas.acts.arrange?.([{ key: box.key, at: [box.x, box.y], size: [box.width, box.height] }]),
    cancel: () => {
      box.ports = before.ports;
      box.width = before.width;
      box.height = before.height;
      scene.redraw(box);
      follow(canvas, [box], lines);
    },
  };
}

function movePort(canvas, key) {
  const { scene } = canvas;
  const { port, box } = scene.ports.get(key);
  const before = { side: port.side, x: port.x, y: port.y };
  const lines = [...scene.lines.values()].filter((line) => line.from === key || line.to === key);
  const back = () => {
    Object.assign(port, before);
    scene.redraw(box);
    follow(canvas, [], lines);
  };
  return {
    move: (event) => {
      const [x, y] = canvas.point(event);
      const rect = scene.absolute(box);
      scene.movePort(key, [x - rect.x, y - rect.y]);
      follow(canvas, [], lines);
    },
    drop: (event) => {
      const goal = scene.boxes.get(canvas.under(event, '.box'));
      if (goal && goal !== box && !scene.isWithin(box, goal) && !scene.isWithin(goal, box)) {
        back();
        canvas.acts.portElsewhere?.(port, box, goal);
      } else {
        canvas.acts.arrange?.([{ key, at: [port.x, port.y] }]);
      }
    },
    cancel: back,
  };
}

/** Draws a line to the pointer and marks what it would end at. */
export function lead(canvas, from, event) {
  const [x, y] = canvas.point(event);
  canvas.scene.aids(svg('path', { class: 'joining', d: `M${from[0]} ${from[1]}L${x} ${y}` }));
  canvas.sheet.querySelectorAll('.into').forEach((node) => node.classList.remove('into'));
  const goal = canvas.under(event);
  canvas.scene.nodeOf(goal)?.classList.add('into');
  return goal;
}

function centre(canvas, key) {
  const { x, y, width, height } = canvas.scene.place(key);
  return [x + width / 2, y + height / 2];
}

/** A lifeline is as tall as the drawing: a line leads from it at any height, also to itself. */
const isTall = (canvas, key) => canvas.scene.boxes.get(key)?.shape === 'lifeline';

function startOf(canvas, key, event) {
  const [x, y] = centre(canvas, key);
  return [x, isTall(canvas, key) ? canvas.point(event)[1] : y];
}

function connect(canvas, key) {
  return {
    start: () => canvas.host.classList.add('joining'),
    move: (event) => lead(canvas, startOf(canvas, key, event), event),
    drop: (event) => {
      finish(canvas);
      const goal = canvas.under(event);
      if (goal !== key || isTall(canvas, key)) {
        canvas.acts.connect?.(key, goal, canvas.point(event));
      }
    },
    cancel: () => finish(canvas),
  };
}

function pressLine(canvas, key, event) {
  const choose = () => (event.shiftKey ? canvas.flip(key) : canvas.go(key));
  return canvas.editable ? { ...bend(canvas, canvas.scene.lines.get(key), event), click: choose } : click(choose);
}

function reend(canvas, line, end) {
  const stays = end === 'from' ? line.points.at(-1) : line.points[0];
  return {
    start: () => canvas.host.classList.add('joining'),
    move: (event) => lead(canvas, stays, event),
    drop: (event) => {
      finish(canvas);
      canvas.acts.reend?.(line, end, canvas.under(event));
    },
    cancel: () => finish(canvas),
    click: () => canvas.go(line.key),
  };
}

/** Moves a piece of a line sideways. Its ends stay at their boxes. */
function bend(canvas, line, pressed) {
  const { scene } = canvas;
  const before = { via: line.via, points: line.points };
  const points = opened(line.points);
  const at = nearestPiece(points, canvas.point(pressed));
  const level = Math.abs(points[at][1] - points[at + 1][1]) < 1;
  return {
    start: () => canvas.go(line.key),
    move: (event) => {
      const [dx, dy] = delta(canvas, event, pressed);
      const by = level ? [0, dy] : [dx, 0];
      line.via = shifted(points, at, by).map(([x, y]) => [Math.round(x), Math.round(y)]);
      scene.route([line]);
      scene.drawLine(line);
    },
    drop: () => canvas.acts.bend?.(line, line.via),
    cancel: () => {
      Object.assign(line, before);
      scene.drawLine(line);
    },
  };
}

/** Chooses the boxes within a rectangle that is drawn: those at the top, or those in an open box. */
function marquee(canvas, ground, pressed) {
  const { scene } = canvas;
  const before = [...canvas.chosen];
  const [startX, startY] = canvas.point(pressed);
  return {
    move: (event) => {
      const [x, y] = canvas.point(event);
      const rect = {
        x: Math.min(x, startX),
        y: Math.min(y, startY),
        width: Math.abs(x - startX),
        height: Math.abs(y - startY),
      };
      canvas.scene.aids(svg('rect', { class: 'marquee', ...rect }));
      const boxes = (scene.children.get(ground?.key ?? '') ?? []).filter((box) => contains(rect, scene.absolute(box)));
      canvas.choose([...(pressed.shiftKey ? before : []), ...boxes.map((box) => box.key)]);
    },
    drop: () => finish(canvas),
    cancel: () => {
      canvas.choose(before);
      finish(canvas);
    },
    click: () => canvas.choose([]),
  };
}
