// The drawing of an element or view: fetches it, and turns gestures into edits of the model.
import { Canvas } from '../canvas/canvas.js';
import { openMenu } from '../canvas/menu.js';
import { at } from '../frame/server.js';
import { onRefresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { saved } from '../frame/saving.js';
import { remark } from '../frame/thread.js';
import { connect, reconnect } from './joining.js';
import { actsOn } from './acts.js';
import { startBringing } from './bring.js';
import { hasUses, startExtent } from './extent.js';
import { startFiles } from './files.js';
import { keepOpen, openKeys } from './opened.js';
import { sequenceActs, sequenceGestures } from './sequence.js';

const send = (address, data) =>
  fetch(at(address), {
    method: 'POST',
    headers: {
      'Content-Type': 'application/json',
      'X-Requested-With': 'fetch',
      [document.querySelector('meta[name="csrf-header"]').content]:
        document.querySelector('meta[name="csrf-token"]').content,
    },
    body: JSON.stringify(data),
  });

/** The acts of a drawing that only shows: it comes from an address. */
function showing(source) {
  return {
    load: async () => {
      const response = await fetch(source, { headers: { 'X-Requested-With': 'fetch' } }).catch(() => null);
      return response?.ok ? response.json() : null;
    },
    shown: (canvas) => {
      const changing = new Set((canvas.sheet.dataset.changing ?? '').split(' '));
      canvas.scene.boxes.forEach((box) => box.node.classList.toggle('changing', changing.has(box.id)));
      shown(canvas);
    },
    enter: (box) => {
      location.href = at(`element/${box.id}`);
    },
  };
}

/** What belongs to a marked path stands out: all else steps back. */
function markPath({ host, scene }) {
  const marks = new Set((host.dataset.marks ?? '').split(' ').filter(Boolean));
  if (!marks.size) {
    return;
  }
  const lit = new Set();
  scene.boxes.forEach((box) => {
    if (marks.has(box.id)) {
      [box, ...scene.surroundings(box)].forEach(({ key }) => lit.add(key));
    }
  });
  scene.boxes.forEach((box) => box.node.classList.toggle('aside', !lit.has(box.key)));
  scene.lines.forEach((line) => line.node.classList.toggle('aside', !marks.has(line.id)));
}

function shown(canvas) {
  markPath(canvas);
  canvas.host.dispatchEvent(new CustomEvent('pyrite:drawn'));
  remark();
  const note = document.getElementById('drawing-note');
  if (note) {
    const { left, boxes } = canvas.data;
    note.hidden = left === 0 && boxes.length > 0;
    note.textContent = boxes.length
      ? `${left} more are not shown; open a part of this to see less at once`
      : note.dataset.empty;
  }
  canvas.host.classList.toggle(
    'arranged',
    canvas.data.boxes.some((box) => box.placed),
  );
}

export class Drawing {
  /**
   * @param gestures (drawing) what gestures mean, where that is something else than in a drawing of structure
   * @param acts (drawing) what can be done with what is chosen: items of a menu, keys and buttons
   */
  constructor(host, gestures = () => ({}), acts = actsOn) {
    const { element, form } = host.dataset;
    this.acts = acts;
    this.element = element;
    this.form = form;
    this.fresh = new Map();
    /** The keys of boxes that are opened or closed and get a new size by it. */
    this.turned = new Set();
    this.canvas = new Canvas(host, {
      load: (seen) => this.load(seen),
      shown,
      say: (words) => say(words),
      arrange: (changes) => this.arrange(changes),
      bend: (line, via) => this.save('arrange', { changes: [], bends: [{ edge: line.key, via: via.flat() }] }),
      connect: (from, to) => connect(this, from, to),
      portElsewhere: (port, box, goal) =>
        say(
          `Port ${port.name} stands where its type has it, on ${box.title}; ${goal.title} has no such port. ` +
            'Drag from it without Alt to connect the two: what has no port that fits gets the conjugate.',
        ),
      reend: (line, end, to) => reconnect(this, line, end, to),
      toggle: (box) => this.toggle(box),
      enter: (box) => this.enter(box),
      menu: (canvas, x, y) => this.menu(x, y),
      keys: {},
      ...gestures(this),
    });
    this.canvas.acts.keys = acts(this).keys;
  }

  async load(seen) {
    const open = openKeys();
    // What was dropped at a place stands there as long as nothing else is known of it.
    const data = {
      form: this.form,
      open,
      seen: { ...Object.fromEntries(this.fresh), ...seen },
      resized: [...this.turned],
    };
    this.turned.clear();
    const response = await send(`element/${this.element}/drawing.json`, data).catch(() => null);
    return response?.ok ? response.json() : null;
  }

  save(act, data) {
    return saved(`/element/${this.element}/drawing/${act}`, (base) => ({ form: this.form, ...data, base })).then(
      (done) => {
        if (!done) {
          this.canvas.load();
        }
        return done;
      },
    );
  }

  arrange(changes) {
    return this.save('arrange', { changes, bends: [] });
  }

  toggle(box) {
    const open = this.canvas.data.boxes.filter((each) => each.open && each.openable).map((each) => each.key);
    keepOpen(box.open ? open.filter((key) => key !== box.key && !key.startsWith(`${box.key}.`)) : [...open, box.key]);
    this.canvas.scene.surroundings(box).forEach((outer) => this.turned.add(outer.key));
    this.turned.add(box.key);
    this.canvas.load();
  }

  /** Goes into a part that has an inside, else to its page; what is deeper inside stays in its context. */
  enter(box) {
    const isDeep = hasUses() && (box.inherited || box.key.split('.').length > 2);
    if (isDeep && box.openable) {
      this.toggle(box);
      return;
    }
    if (isDeep) {
      location.href = at(`use/${box.key}`);
      return;
    }
    const goesIn = this.form !== 'GENERAL' && (box.openable || box.parts.length === 0) && box.parent;
    location.href = at(`element/${box.id}${goesIn ? '/inside' : ''}`);
  }

  menu(x, y) {
    const { canvas } = this;
    const node = canvas.scene.nodeOf(canvas.current);
    const frame = (node ?? canvas.host).getBoundingClientRect();
    openMenu(canvas.host, this.acts(this).items(), x ?? frame.left + 24, y ?? frame.top + 40, node);
  }

  /** Remembers where something new was dropped, so that it is shown there. */
  expect(key, x, y) {
    this.fresh.set(key, [x, y]);
  }
}

export function startDrawing() {
  const host = document.getElementById('canvas');
  if (!host?.querySelector('svg.diagram')) {
    return;
  }
  let canvas;
  if (host.dataset.source) {
    canvas = new Canvas(host, showing(host.dataset.source));
  } else {
    const drawing =
      host.dataset.form === 'SEQUENCE' ? new Drawing(host, sequenceGestures, sequenceActs) : new Drawing(host);
    ({ canvas } = drawing);
    if (canvas.editable) {
      startExtent();
      startBringing(drawing);
      startFiles(drawing);
    }
    document.addEventListener('click', (event) => {
      const button = event.target.closest('[data-drawing]');
      if (button) {
        const act = drawing.acts(drawing).buttons[button.dataset.drawing];
        const { left, bottom } = button.getBoundingClientRect();
        act?.(left, bottom + 4);
      }
    });
    document.addEventListener('keydown', (event) => {
      const isFree = event.target === document.body && !event.ctrlKey && !event.metaKey && !event.altKey;
      if (isFree && event.key === 'a' && canvas.editable) {
        event.preventDefault();
        drawing.acts(drawing).buttons.add();
      }
    });
  }
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-zoom]');
    if (button) {
      ({ in: () => canvas.viewport.closer(), out: () => canvas.viewport.farther(), fit: () => canvas.fit() })[
        button.dataset.zoom
      ]();
    }
  });
  onRefresh(() => canvas.load());
  canvas.load();
}
