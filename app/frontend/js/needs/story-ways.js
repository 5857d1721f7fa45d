// The ways of a story to choose from: the drawing shows the chosen one and lets the others step back.
import { element } from '../frame/dom.js';

export class Ways {
  constructor(story) {
    this.story = story;
    this.chips = document.getElementById('story-ways');
    this.host = document.getElementById('canvas');
    this.chosen = null;
    this.chips.addEventListener('click', (event) => {
      const chip = event.target.closest('[data-way]');
      if (chip) {
        this.choose(chip.dataset.way === '*' ? null : chip.dataset.way);
      }
    });
    this.host.addEventListener('pyrite:drawn', () => this.draw());
  }

  choose(label) {
    this.chosen = label;
    this.show();
    this.draw();
  }

  show() {
    const { ways } = this.story.data;
    if (this.chosen !== null && !this.story.way(this.chosen)) {
      this.chosen = null;
    }
    this.chips.hidden = ways.length < 2;
    const chip = (key, label, title, kind = '') =>
      element('button', {
        type: 'button',
        className: `chip ${kind}`,
        textContent: label,
        title,
        data: { way: key },
        aria: { pressed: String(this.chosen === (key === '*' ? null : key)) },
      });
    this.chips.replaceChildren(
      chip('*', 'All', 'The whole story'),
      ...ways.map((way) =>
        way.label
          ? chip(way.label, `${way.label} ${shortened(way.condition)}`, `${way.title}: ${way.condition}`, way.kind)
          : chip('', 'Main story', 'The story when nothing comes in between'),
      ),
    );
    this.draw();
  }

  /** Boxes and lines that do not belong to the chosen way step back. */
  draw() {
    const { canvas } = this.host;
    if (!canvas?.data || !this.story.data) {
      return;
    }
    const way = this.chosen === null ? null : this.story.way(this.chosen);
    const uncovered = new Set(this.story.steps.filter((step) => !step.requirements.length).map(({ id }) => id));
    const doubted = new Set(
      this.story.steps.filter((step) => step.requirements.some((each) => each.doubted)).map(({ id }) => id),
    );
    const lit = way && this.lit(canvas, way.path);
    canvas.scene.boxes.forEach((box) => {
      box.node.classList.toggle('aside', Boolean(lit) && !lit.boxes.has(box.key));
      box.node.classList.toggle('uncovered', uncovered.has(box.id));
      box.node.classList.toggle('doubted', doubted.has(box.id));
    });
    canvas.scene.lines.forEach((line) => line.node.classList.toggle('aside', Boolean(lit) && !lit.lines.has(line.key)));
  }

  /** The boxes and lines from each step of a path to the next, through control nodes. */
  lit(canvas, path) {
    const { scene, data } = canvas;
    const keyOf = new Map(data.boxes.map((box) => [box.id, box.key]));
    const outgoing = Map.groupBy(data.lines, ({ from }) => from);
    const isNode = (key) => ['decision', 'bar', 'start', 'done'].includes(scene.boxes.get(key)?.shape);
    const boxes = new Set();
    const lines = new Set();
    const start = data.boxes.find(({ shape }) => shape === 'start')?.key;
    const stops = [start, ...path.map((id) => keyOf.get(id))].filter(Boolean);
    stops.forEach((key) => {
      boxes.add(key);
      scene.surroundings(scene.boxes.get(key)).forEach((box) => boxes.add(box.key));
    });
    const search = (from, isGoal) => {
      const came = new Map([[from, null]]);
      const open = [from];
      while (open.length) {
        const at = open.shift();
        for (const line of outgoing.get(at) ?? []) {
          if (came.has(line.to)) {
            continue;
          }
          came.set(line.to, line);
          if (isGoal(line.to)) {
            for (let back = line; back; back = came.get(back.from)) {
              lines.add(back.key);
              boxes.add(back.from);
              boxes.add(back.to);
            }
            return;
          }
          if (isNode(line.to)) {
            open.push(line.to);
          }
        }
      }
    };
    stops.forEach((key, i) => {
      const next = stops[i + 1];
      search(
        key,
        next
          ? (each) => each === next || scene.boxes.get(next).parent === each
          : (each) => scene.boxes.get(each)?.shape === 'done',
      );
    });
    return { boxes, lines };
  }

  /** Marks the box of the step that somebody writes in. */
  mark(step) {
    const { canvas } = this.host;
    const box = canvas?.data?.boxes.find(({ id }) => id === step);
    if (box) {
      canvas.choose([box.key]);
      canvas.viewport.reveal(canvas.scene.place(box.key));
    }
  }
}

const LONGEST = 34;
const shortened = (text) => (text.length > LONGEST ? `${text.slice(0, LONGEST - 1)}…` : text);
