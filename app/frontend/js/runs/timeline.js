// The timeline of a run: a row for each step and state, bars for when it was active or waited, a cursor, looking closer.
import { at } from '../frame/server.js';
import { onRefresh } from '../frame/live.js';
import { element } from '../frame/dom.js';
import { download, painted, standing } from '../canvas/export.js';
import { clock, number } from './scales.js';
import { say } from '../frame/notice.js';

const NAMES = 250;
const ROW = 22;
const AXIS = 26;
const SVG = 'http://www.w3.org/2000/svg';
const WORDS = { ACTIVE: 'active', WAITS: 'waits for an arrival', QUEUED: 'waits for a pool' };

const shape = (tag, attributes) => {
  const made = document.createElementNS(SVG, tag);
  Object.entries(attributes).forEach(([name, value]) => made.setAttribute(name, value));
  return made;
};

const words = (text, attributes) => {
  const made = shape('text', attributes);
  made.textContent = text;
  return made;
};

/** Round instants for the axis, about so many. */
function ticks(from, to, most) {
  const rough = (to - from) / most;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((each) => each * power).find((each) => each >= rough) ?? rough;
  const found = [];
  for (let t = Math.ceil(from / step) * step; t <= to + step * 1e-9; t += step) {
    found.push(t);
  }
  return found;
}

class Timeline {
  constructor(place) {
    this.place = place;
    this.run = place.dataset.timeline;
    this.address = place.dataset.timelineAt ?? `runs/${this.run}`;
    this.folded = new Set();
    this.range = null;
    this.text = '';
    place.addEventListener('pointerdown', (event) => this.press(event));
    place.addEventListener('pointermove', (event) => this.move(event));
    place.addEventListener('pointerleave', () => this.cursor(null));
    place.addEventListener('dblclick', () => this.look(null));
    place.addEventListener('wheel', (event) => this.wheel(event), { passive: false });
    new ResizeObserver(() => this.picture && this.width !== place.clientWidth && this.draw()).observe(place);
  }

  get span() {
    return Math.max(80, this.place.clientWidth - NAMES - 20);
  }

  async fetch() {
    const query = new URLSearchParams({
      slices: String(Math.round(this.span)),
      text: this.text,
      kind: document.getElementById('timeline-kind')?.value ?? '',
      group: document.getElementById('timeline-group')?.value ?? 'part',
    });
    if (this.range) {
      query.set('from', this.range[0]);
      query.set('to', this.range[1]);
    }
    const asked = query.toString();
    this.asked = asked;
    const response = await fetch(at(`${this.address}/timeline.json?${asked}`), {
      headers: { 'X-Requested-With': 'fetch' },
    }).catch(() => undefined);
    if (this.asked !== asked) {
      return;
    }
    if (!response?.ok) {
      say('The timeline cannot be read now.');
      return;
    }
    this.picture = await response.json();
    this.draw();
  }

  /** The rows in sight, a heading for each part before its own. */
  rows() {
    const rows = [];
    let part = null;
    const hidden = [];
    for (const row of this.picture.rows) {
      while (hidden.length && hidden.at(-1) >= row.depth) {
        hidden.pop();
      }
      if (row.part !== part) {
        part = row.part;
        rows.push({ heading: part });
        hidden.length = 0;
      }
      if (!hidden.length && !this.folded.has(part)) {
        rows.push(row);
        if (this.folded.has(row.path)) {
          hidden.push(row.depth);
        }
      }
    }
    return rows;
  }

  draw() {
    this.width = this.place.clientWidth;
    const { from, to } = this.picture;
    const rows = this.rows();
    const height = rows.length * ROW + AXIS + 4;
    const sheet = shape('svg', {
      width: this.width,
      height,
      viewBox: `0 0 ${this.width} ${height}`,
      role: 'group',
      'aria-label': `Timeline of run ${this.run}`,
    });
    this.sheet = sheet;
    this.values = [];
    this.axis(sheet, from, to, height);
    rows.forEach((row, i) => this.row(sheet, row, AXIS + i * ROW));
    this.line = shape('line', { class: 'cursor', y1: AXIS - 4, y2: height, x1: -10, x2: -10 });
    this.said = words('', { class: 'said', y: 12, x: -10 });
    sheet.append(this.line, this.said);
    this.place.replaceChildren(sheet);
    if (this.picture.cut) {
      this.place.append(
        element('p', {
          className: 'quiet',
          textContent: 'Not all rows are shown; find what you look for by its name.',
        }),
      );
    }
  }

  x(t) {
    const { from, to } = this.picture;
    return NAMES + ((t - from) / (to - from || 1)) * this.span;
  }

  axis(sheet, from, to, height) {
    const { unit, factor } = clock(this.picture.ends);
    ticks(from * factor, to * factor, Math.max(2, Math.floor(this.span / 90))).forEach((tick) => {
      const x = this.x(tick / factor);
      const label = words(`${number(tick)} ${unit}`, { class: 'tick', x: Math.min(x, this.width - 30), y: 12 });
      sheet.append(shape('line', { class: 'tick', x1: x, x2: x, y1: AXIS - 6, y2: height }), label);
    });
  }

  row(sheet, row, y) {
    if (row.heading !== undefined) {
      const mark = this.folded.has(row.heading) ? '▸' : '▾';
      const heading = words(`${mark} ${row.heading}`, { class: 'part', x: 6, y: y + 15, 'data-fold': row.heading });
      sheet.append(shape('rect', { class: 'part', x: 0, y, width: this.width, height: ROW }), heading);
      return;
    }
    const inset = 18 + row.depth * 12;
    const isParent = this.picture.rows.some(
      (other) => other.path !== row.path && other.path.startsWith(`${row.path}.`),
    );
    if (isParent) {
      sheet.append(
        words(this.folded.has(row.path) ? '▸' : '▾', {
          class: 'fold',
          x: inset - 12,
          y: y + 15,
          'data-fold': row.path,
        }),
      );
    }
    const room = Math.floor((NAMES - inset - 8) / 6.4);
    const name = row.name.length > room ? `${row.name.slice(0, room - 1)}…` : row.name;
    const link = shape('a', { href: at(`element/${row.element}`), 'data-select': row.element });
    link.append(words(name, { class: row.kind === 'STATE' ? 'name state' : 'name', x: inset, y: y + 15 }));
    if (name !== row.name) {
      const title = shape('title', {});
      title.textContent = row.path;
      link.append(title);
    }
    sheet.append(link, shape('line', { class: 'rule', x1: 0, x2: this.width, y1: y + ROW, y2: y + ROW }));
    const most = Math.max(...row.bars.map(([, , , , value]) => value ?? 0));
    row.bars.forEach(([from, to, state, count, value]) =>
      sheet.append(
        state === 'HELD' ? this.level(row, from, to, value, most, y) : this.bar(row, from, to, state, count, y),
      ),
    );
    if (most > 0) {
      this.values.push({ row, text: sheet.appendChild(words('', { class: 'value', x: NAMES - 6, y: y + 15 })) });
    }
  }

  /** How much is held of a pool, or how many wait: as high as it is much. */
  level(row, from, to, value, most, y) {
    const left = Math.max(NAMES, this.x(from));
    const right = Math.min(NAMES + this.span, this.x(to));
    const height = Math.max(3, (value / most) * (ROW - 6));
    const width = Math.max(1.5, right - left);
    const group = shape('g', { class: `bar ${row.kind.toLowerCase()}`, 'data-select': row.element });
    const { unit, factor } = clock(this.picture.ends);
    const title = shape('title', {});
    title.textContent = `${row.path}, ${row.name}: ${number(value)} from ${number(from * factor)} to ${number(to * factor)} ${unit}`;
    group.append(title, shape('rect', { x: left, y: y + ROW - 3 - height, width, height }));
    if (number(value).length * 6.2 < width - 6) {
      group.append(words(number(value), { x: left + 4, y: y + 15 }));
    }
    return group;
  }

  bar(row, from, to, state, count, y) {
    const left = Math.max(NAMES, this.x(from));
    const right = Math.min(NAMES + this.span, this.x(to));
    const width = Math.max(1.5, right - left);
    const group = shape('g', {
      class: `bar ${row.kind.toLowerCase()} ${state.toLowerCase()}${count > 1 ? ' many' : ''}`,
      'data-select': row.element,
    });
    const { unit, factor } = clock(this.picture.ends);
    const title = shape('title', {});
    const what = count > 1 ? `${count} times` : WORDS[state];
    title.textContent = `${row.path} ${what} from ${number(from * factor)} to ${number(to * factor)} ${unit}`;
    group.append(title);
    if (state === 'WAITS') {
      group.append(shape('path', { d: `M${left} ${y + 11}h${width}M${left} ${y + 7}v8M${left + width} ${y + 7}v8` }));
    } else {
      group.append(
        shape('rect', {
          x: left,
          y: y + (state === 'QUEUED' ? 6 : 4),
          width,
          height: state === 'QUEUED' ? 10 : 14,
          rx: row.kind === 'STATE' ? 5 : 1,
        }),
      );
      if (state === 'QUEUED') {
        let lines = '';
        for (let x = left + 3; x + 4 < left + width; x += 6) {
          lines += `M${x} ${y + 16}l4 -10`;
        }
        group.append(shape('path', { d: lines }));
      }
    }
    const label = count > 1 ? `${count} ×` : row.name;
    if ((state === 'ACTIVE' || count > 1) && label.length * 6.2 < width - 10) {
      group.append(words(label, { x: left + 6, y: y + 15 }));
    }
    return group;
  }

  instant(event) {
    const across = event.clientX - this.place.getBoundingClientRect().left - NAMES;
    const { from, to } = this.picture;
    return from + (Math.min(Math.max(across, 0), this.span) / this.span) * (to - from);
  }

  move(event) {
    if (!this.picture) {
      return;
    }
    const across = event.clientX - this.place.getBoundingClientRect().left;
    this.cursor(across < NAMES ? null : this.instant(event));
    if (this.begun !== undefined) {
      this.shade(this.begun, this.instant(event));
    }
  }

  cursor(t) {
    if (!this.line) {
      return;
    }
    const x = t === null ? -10 : this.x(t);
    this.line.setAttribute('x1', x);
    this.line.setAttribute('x2', x);
    const { unit, factor } = clock(this.picture.ends);
    this.said.textContent = t === null ? '' : `t = ${(t * factor).toPrecision(5)} ${unit}`;
    this.values.forEach(({ row, text }) => {
      const bar = t === null ? undefined : row.bars.find(([from, to]) => from <= t && t <= to);
      text.textContent = t === null ? '' : number(bar?.[4] ?? 0);
    });
    this.said.setAttribute('x', Math.min(x + 4, this.width - 90));
  }

  shade(a, b) {
    this.chosen ??= this.sheet.appendChild(
      shape('rect', { class: 'chosen', y: AXIS - 4, height: this.sheet.clientHeight }),
    );
    const [left, right] = [this.x(Math.min(a, b)), this.x(Math.max(a, b))];
    this.chosen.setAttribute('x', left);
    this.chosen.setAttribute('width', right - left);
  }

  press(event) {
    const fold = event.target.closest('[data-fold]');
    if (fold) {
      const path = fold.dataset.fold;
      this.folded[this.folded.has(path) ? 'delete' : 'add'](path);
      this.draw();
      return;
    }
    const across = event.clientX - this.place.getBoundingClientRect().left;
    if (!this.picture || across < NAMES || event.button !== 0) {
      return;
    }
    this.begun = this.instant(event);
    const up = (end) => {
      removeEventListener('pointerup', up);
      const [a, b] = [this.begun, this.instant(end)].sort((x, y) => x - y);
      this.begun = undefined;
      this.chosen?.remove();
      this.chosen = undefined;
      if (this.x(b) - this.x(a) > 5) {
        this.look([a, b]);
      }
    };
    addEventListener('pointerup', up);
  }

  wheel(event) {
    if (!this.picture || !(event.ctrlKey || event.metaKey)) {
      return;
    }
    event.preventDefault();
    const t = this.instant(event);
    const { from, to, begins, ends } = this.picture;
    const by = event.deltaY > 0 ? 1.4 : 1 / 1.4;
    const range = [Math.max(begins, t - (t - from) * by), Math.min(ends, t + (to - t) * by)];
    this.look(range[0] <= begins && range[1] >= ends ? null : range);
  }

  /** Looks at a stretch of time; plots and events follow. */
  look(range) {
    this.range = range;
    this.fetch();
    document.dispatchEvent(new CustomEvent('pyrite:window', { detail: { range, from: this } }));
  }
}

export function startTimeline() {
  let current = null;
  const begin = () => {
    const place = document.querySelector('[data-timeline]');
    if (place && place !== current?.place) {
      current = new Timeline(place);
      current.fetch();
    }
  };
  document.addEventListener('input', (event) => {
    if (event.target.id === 'timeline-filter' && current) {
      current.text = event.target.value;
      current.fetch();
    }
  });
  document.addEventListener('change', (event) => {
    if (event.target.matches('#timeline-kind, #timeline-group') && current) {
      current.fetch();
    }
  });
  document.addEventListener('click', (event) => {
    if (current?.sheet && event.target.closest('[data-timeline-svg]')) {
      standing(current.sheet).then((svg) =>
        download(new Blob([svg], { type: 'image/svg+xml' }), `run-${current.run}-timeline.svg`),
      );
    }
    if (current?.sheet && event.target.closest('[data-timeline-png]')) {
      standing(current.sheet)
        .then(painted)
        .then((blob) => download(blob, `run-${current.run}-timeline.png`));
    }
  });
  document.addEventListener('pyrite:timeline', () => current?.fetch());
  document.addEventListener('pyrite:window', ({ detail }) => {
    if (current && detail.from !== current) {
      current.range = detail.range;
      current.fetch();
    }
  });
  onRefresh(begin);
  begin();
}
