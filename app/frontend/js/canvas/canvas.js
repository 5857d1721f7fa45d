// The surface of a drawing: what is shown, the part in sight, what is chosen. Each kind of view says by its acts where the
// drawing comes from and what a gesture means.
import { around } from './geometry.js';
import { startGestures } from './gestures.js';
import { startKeyboard } from './keyboard.js';
import { Scene } from './scene.js';
import { svg } from './shapes.js';
import { Viewport } from './viewport.js';

const NARROW = 600;
const READABLE = 0.5;

export class Canvas {
  /**
   * @param host the window onto the drawing, with an svg in it
   * @param acts what a view does: load(seen) gives what to show; arrange(changes), bend(line, via), connect(from, to),
   *     reend(line, end, to), toggle(box), enter(box), menu(canvas) and keys are for drawings that can be edited
   */
  constructor(host, acts) {
    this.host = host;
    this.acts = acts;
    host.canvas = this;
    this.sheet = host.querySelector('svg.diagram');
    this.editable = this.sheet.dataset.editable === 'true';
    const over = svg('svg', { class: 'diagram over', 'aria-hidden': 'true' });
    this.sheet.after(over);
    this.scene = new Scene(this.sheet, over, this.editable);
    this.viewport = new Viewport(host, this.sheet, over);
    this.chosen = new Set();
    startGestures(this);
    startKeyboard(this);
    new ResizeObserver(() => this.data && !this.viewport.moved && this.fitAtFirst()).observe(host);
    host.addEventListener('focusin', (event) => this.focused(event));
    // A press gives the focus, too; what it chooses is for the gesture to say.
    host.addEventListener('pointerdown', () => (this.isPressed = true), true);
    addEventListener('pointerup', () => (this.isPressed = false), true);
  }

  /**
   * Fetches what is to be seen. Of several at once only the one asked for last counts.
   *
   * @param afresh whether nothing needs to stay where it is
   */
  async load(afresh = false) {
    if (this.host.classList.contains('moving')) {
      this.isLate = true;
      return;
    }
    const asked = Symbol('asked');
    this.asked = asked;
    const data = await this.acts.load(this.data && !afresh ? this.scene.seen : {});
    if (!data || this.asked !== asked) {
      return;
    }
    const isFirst = !this.data;
    this.data = data;
    const focus = document.activeElement?.closest?.('.box, .port, .edge');
    const now = (each) => data.renewed?.[each] ?? each;
    const key = focus && this.host.contains(focus) ? now(focus.dataset.key ?? focus.dataset.line) : null;
    this.scene.show(data);
    this.sheet.setAttribute('width', data.width);
    this.sheet.setAttribute('height', data.height);
    this.chosen = new Set([...this.chosen].map(now).filter((each) => this.scene.nodeOf(each)));
    this.mark();
    if (isFirst) {
      this.open();
    }
    if (key) {
      this.scene.nodeOf(key)?.focus({ preventScroll: true });
    }
    this.acts.shown?.(this, isFirst);
    this.host.dataset.shown = String(data.revision);
  }

  /** To be called when something was let go: shows what came meanwhile. */
  catchUp() {
    if (this.isLate) {
      this.isLate = false;
      this.load();
    }
  }

  /** The part that was in sight when one left it in this tab, else all of it. */
  open() {
    const kept = sessionStorage.getItem(this.place());
    if (kept) {
      this.viewport.restore(JSON.parse(kept));
    } else {
      this.fitAtFirst();
    }
    addEventListener('pagehide', () => {
      if (this.viewport.moved) {
        sessionStorage.setItem(this.place(), JSON.stringify(this.viewport.state));
      }
    });
  }

  place() {
    return `pyrite.sight${location.pathname}`;
  }

  /**
   * All of it; beside a text, where there is little room, a part of it that can be read. Steps follow each other from the
   * top down: of these as much as there is room for when they are seen in their whole width, and where that is too small
   * to read, what is around the start.
   */
  fitAtFirst() {
    const { all } = this.scene;
    const start = this.data?.boxes.find(({ shape }) => shape === 'start' || shape === 'lifeline');
    const { clientWidth } = this.host;
    if (start) {
      const height = Math.min(all.height, this.viewport.heightFor(all.width));
      this.viewport.fit({ ...all, height }, READABLE);
      this.viewport.lookAt(start.x + start.width / 2, all);
    } else {
      this.fit(clientWidth < NARROW ? READABLE : undefined);
    }
  }

  fit(smallest) {
    this.viewport.fit(this.scene.all, smallest);
  }

  /** The chosen boxes, without those that stand in another chosen one. */
  get boxes() {
    const boxes = [...this.chosen].map((key) => this.scene.boxes.get(key)).filter(Boolean);
    return boxes.filter((box) => !boxes.some((other) => other !== box && this.scene.isWithin(box, other)));
  }

  /** The key of what was chosen last. */
  get current() {
    return [...this.chosen].at(-1);
  }

  choose(keys, isMore = false) {
    this.chosen = new Set(isMore ? [...this.chosen, ...keys] : keys);
    this.mark();
  }

  flip(key) {
    if (!this.chosen.delete(key)) {
      this.chosen.add(key);
    }
    this.mark();
  }

  /** Chooses one and gives it the focus. */
  go(key) {
    this.choose([key]);
    this.scene.nodeOf(key)?.focus({ preventScroll: true });
    const rect = this.scene.lines.has(key) ? this.lineRect(key) : this.scene.place(key);
    this.viewport.reveal(rect);
  }

  lineRect(key) {
    return around(this.scene.lines.get(key).points.map(([x, y]) => ({ x, y, width: 0, height: 0 })));
  }

  mark() {
    this.sheet.querySelectorAll('.chosen').forEach((node) => node.classList.remove('chosen'));
    this.sheet.querySelectorAll('[tabindex="0"]').forEach((node) => node.setAttribute('tabindex', '-1'));
    this.chosen.forEach((key) => this.scene.nodeOf(key)?.classList.add('chosen'));
    const stop = this.scene.nodeOf(this.current) ?? this.scene.boxes.values().next().value?.node;
    stop?.setAttribute('tabindex', '0');
  }

  /** What gets the focus by the Tab key or a script is chosen. */
  focused(event) {
    const node = event.target.closest('.box, .port, .edge');
    const key = node?.dataset.key ?? node?.dataset.line;
    if (key && !this.isPressed && !this.chosen.has(key)) {
      this.choose([key]);
    }
  }

  /** The box or port, or else the line, under a point of the screen. */
  under(event, more = '.port, .box') {
    const node = document.elementFromPoint(event.clientX, event.clientY)?.closest(more);
    return node && this.host.contains(node) ? (node.dataset.key ?? node.dataset.line) : null;
  }

  point(event) {
    return this.viewport.point(event.clientX, event.clientY);
  }
}
