// What parts tell each other as a growing sequence drawing: a line of life for each part, an arrow for each item, a box
// where a state is entered.

const SVG = 'http://www.w3.org/2000/svg';
const OUTSIDE = 'you';
const HEAD = 34;
const ROW = 24;
const TIME = 64;
const MOST = 400;

const shape = (tag, attributes, text) => {
  const made = document.createElementNS(SVG, tag);
  Object.entries(attributes).forEach(([name, value]) => made.setAttribute(name, value));
  if (text !== undefined) {
    made.textContent = text;
  }
  return made;
};

const item = (detail) => /^(\S+ \d+)/.exec(detail)?.[1];

export class Messages {
  constructor(place) {
    this.place = place;
    this.lives = [];
    this.rows = [];
    this.sent = new Map();
  }

  life(part) {
    if (!this.lives.includes(part)) {
      this.lives[part === OUTSIDE ? 'unshift' : 'push'](part);
    }
    return part;
  }

  event({ time, kind, detail, part, path, element }) {
    const name = item(detail);
    if (kind === 'SENT') {
      this.sent.set(name, this.life(part));
    } else if (kind === 'ACCEPTED') {
      const last = this.rows.findLast((row) => row.words === name);
      if (last?.time === time && last.to === part) {
        // Parallel states of one part took it.
        return;
      }
      this.rows.push({
        time,
        from: this.life(this.sent.get(name) ?? OUTSIDE),
        to: this.life(part),
        words: name,
        element,
      });
    } else if (kind === 'DROPPED') {
      this.rows.push({
        time,
        from: this.life(this.sent.get(name) ?? OUTSIDE),
        to: this.life(part),
        words: `${name}, not accepted`,
        lost: true,
        element,
      });
    } else if (kind === 'LOST') {
      this.rows.push({ time, from: this.life(part), to: null, words: `${name}, nobody there`, lost: true, element });
    } else if (kind === 'ENTERED') {
      this.rows.push({ time, from: this.life(part), state: path.split('.').at(-1), element });
    }
  }

  draw() {
    if (!this.rows.length) {
      this.place.textContent = 'There are no messages yet.';
      return;
    }
    if (this.shown === this.rows.length) {
      return;
    }
    this.shown = this.rows.length;
    const rows = this.rows.slice(-MOST);
    const lives = this.lives.filter((life) => rows.some(({ from, to }) => from === life || to === life));
    const gap = Math.max(104, (this.place.clientWidth - TIME - 20) / lives.length);
    const x = (life) => TIME + gap * (lives.indexOf(life) + 0.5);
    const width = TIME + gap * lives.length;
    const height = HEAD + rows.length * ROW + 16;
    const sheet = shape('svg', {
      width,
      height,
      viewBox: `0 0 ${width} ${height}`,
      role: 'img',
      'aria-label': 'Messages between the parts',
    });
    lives.forEach((life) => {
      const name = life.split('.').slice(-1)[0];
      const head = shape(
        'text',
        { class: 'life', x: x(life), y: 16 },
        name.length > 20 ? `${name.slice(0, 19)}…` : name,
      );
      head.append(shape('title', {}, life));
      sheet.append(head, shape('line', { class: 'life', x1: x(life), x2: x(life), y1: 22, y2: height - 4 }));
    });
    rows.forEach((row, i) =>
      sheet.append(...this.row(row, HEAD + i * ROW + 12, x, i > 0 && rows[i - 1].time === row.time)),
    );
    const atEnd = this.place.scrollTop + this.place.clientHeight > this.place.scrollHeight - 40;
    this.place.replaceChildren(sheet);
    if (atEnd) {
      this.place.scrollTop = this.place.scrollHeight;
    }
  }

  row({ time, from, to, words, state, lost, element }, y, x, isSame) {
    const group = shape('g', { class: lost ? 'message lost' : 'message', 'data-select': element });
    const parts = isSame
      ? []
      : [shape('text', { class: 'time', x: TIME - 10, y: y + 4 }, `${Number(time.toPrecision(5))} s`)];
    if (state) {
      const width = state.length * 6.6 + 16;
      group.append(
        shape('rect', { class: 'state', x: x(from) - width / 2, y: y - 9, width, height: 18, rx: 8 }),
        shape('text', { class: 'state', x: x(from), y: y + 4 }, state),
      );
      return [...parts, group];
    }
    const start = x(from);
    const end = to === null ? start + 50 : x(to);
    const ahead = end >= start ? -1 : 1;
    group.append(
      shape('path', { d: from === to ? `M${start} ${y - 4}h34v8h-28` : `M${start} ${y}H${end}` }),
      shape('path', {
        class: 'head',
        d: from === to ? `M${start + 2} ${y + 4}l7 -4v8z` : `M${end} ${y}l${8 * ahead} -4v8z`,
      }),
    );
    if (to === null) {
      group.append(shape('path', { d: `M${end - 4} ${y - 4}l8 8m0 -8l-8 8` }));
    }
    const middle = from === to ? start + 40 : to === null ? end + 8 : (start + end) / 2;
    group.append(shape('text', { class: from === to || to === null ? 'behind' : '', x: middle, y: y - 4 }, words));
    return [...parts, group];
  }
}
