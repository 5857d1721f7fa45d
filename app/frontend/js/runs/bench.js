// The bench: a part is played by hand. Time runs at a chosen speed or stands until asked; what it receives is given here.
import { at, branch, post } from '../frame/server.js';
import { element } from '../frame/dom.js';
import { say } from '../frame/notice.js';
import { Messages } from './messages.js';
import { number } from './scales.js';

const TICK = 250;
const UNITS = { ms: 0.001, s: 1, min: 60, h: 3600 };
const BEGIN = new Set(['STARTED', 'ENTERED']);
const WAIT = new Set(['WAITS', 'QUEUED']);
const END = new Set(['ENDED', 'CUT', 'LEFT']);

/** 3:04:05.2 of so many seconds. */
export function clockFace(t) {
  const hundredths = Math.round(t * 100);
  const whole = Math.floor(hundredths / 100);
  const two = (n) => String(n).padStart(2, '0');
  const rest = hundredths % 100 ? `.${two(hundredths % 100)}`.replace(/0$/, '') : '';
  return `${Math.floor(whole / 3600)}:${two(Math.floor(whole / 60) % 60)}:${two(whole % 60)}${rest}`;
}

/** Seconds of '10 min', '3 h' or '45'; undefined if it is no time. */
export function seconds(text) {
  const found = /^\s*([0-9]+(?:\.[0-9]+)?)\s*(ms|s|min|h)?\s*$/.exec(text);
  return found ? Number(found[1]) * UNITS[found[2] ?? 's'] : undefined;
}

/** "waits for 'right' to end" of "waits at 'crew.work.both' for 'crew.work.right' to end". */
export const shortWords = (words) => words.replace(/^waits at '[^']*'/, 'waits').replace(/'[^']*\.([^'.]+)'/g, "'$1'");

const TRUTHS = { true: 1, yes: 1, 1: 1, false: 0, no: 0, 0: 0 };

/** The number typed into a field, 1 and 0 for what is true or false; undefined if it is none. */
export function typedValue(text, isTruth) {
  const typed = text.trim();
  const value = isTruth ? TRUTHS[typed.toLowerCase()] : Number(typed || NaN);
  return Number.isFinite(value) ? value : undefined;
}

const example = (name, isTruth) =>
  isTruth ? `Enter true or false for ${name}.` : `Enter a number for ${name}, for instance 2.5.`;

class Bench {
  constructor(place) {
    this.place = place;
    this.key = place.dataset.bench;
    this.size = 0;
    this.about = [];
    this.active = new Map();
    const messages = document.getElementById('bench-messages');
    this.messages = messages && new Messages(messages);
    document.querySelector('.canvas')?.addEventListener('pyrite:drawn', () => this.mark());
  }

  async start() {
    const response = await fetch(at(`bench/${this.key}/state.json`), { headers: { 'X-Requested-With': 'fetch' } });
    if (response.ok) {
      this.take(await response.json());
    } else {
      this.fault('This is no longer on the bench. Put it there again.');
    }
  }

  async ask(what, body) {
    const { status, body: state } = await post(at(`bench/${this.key}/${what}`), { ...body, since: this.size });
    this.fault(status === 200 ? '' : (state?.message ?? 'It cannot be reached now.'));
    if (status === 200) {
      this.take(state);
    } else {
      this.stop();
    }
    return status === 200;
  }

  fault(words) {
    const fault = document.getElementById('bench-fault');
    fault.hidden = !words;
    fault.textContent = words;
  }

  take(state) {
    if (state.about.length) {
      this.about = state.about;
      this.active.clear();
    }
    this.now = state.now;
    this.horizon = state.horizon;
    this.next = state.next;
    this.size = state.size;
    state.events.forEach((event) => this.event(event));
    document.getElementById('bench-clock').textContent = clockFace(state.now);
    this.place.querySelector('[data-bench-next]').disabled = state.next === null;
    this.place.querySelector('[data-bench-event]').disabled = state.isOver;
    const over = document.getElementById('bench-over');
    over.hidden = !state.isOver;
    over.textContent = this.active.size ? over.dataset.waiting : over.dataset.ended;
    this.waiting = state.waiting;
    this.mark();
    if (!this.messages) {
      return;
    }
    this.showStuck(state.stuck);
    document.getElementById('bench-old').hidden = !state.isOld;
    this.showNow();
    this.showValues(state);
    this.showDrawings();
    this.messages.draw();
    if (state.events.length || !this.drawn || this.now - this.drawn > this.now / 200) {
      this.drawn = this.now;
      document.dispatchEvent(new CustomEvent('pyrite:timeline'));
    }
  }

  event([time, kind, subject, occasion, detail]) {
    const key = `${subject} ${occasion}`;
    if (BEGIN.has(kind)) {
      this.active.set(key, { subject, words: '' });
    } else if (WAIT.has(kind)) {
      this.active.set(key, { subject, words: detail });
    } else if (END.has(kind)) {
      this.active.delete(key);
    }
    const { part, path, element: id } = this.about[subject];
    this.messages?.event({ time, kind, detail, part, path, element: id });
  }

  /** The innermost of what is active, and what it waits for. */
  showNow() {
    const subjects = new Set([...this.active.values()].map(({ subject }) => subject));
    const inner = [...this.active.values()].filter(
      ({ subject }) => ![...subjects].some((other) => this.about[other].parent === subject),
    );
    document
      .getElementById('bench-now')
      .replaceChildren(
        ...inner.map(({ subject, words }) =>
          element(
            'li',
            { className: words ? 'waits' : 'active', data: { select: this.about[subject].element } },
            element('a', { href: at(`element/${this.about[subject].element}`), textContent: this.about[subject].path }),
            ` ${words || 'active'}`,
          ),
        ),
      );
  }

  /** What waits when nothing happens by itself, and why nobody gives it. */
  showStuck(stuck) {
    const place = document.getElementById('bench-stuck');
    place.hidden = !stuck.length;
    const link = (subject, textContent, className = '') =>
      this.about[subject]
        ? element('a', { href: at(`element/${this.about[subject].element}`), textContent, className })
        : textContent;
    place
      .querySelector('ul')
      .replaceChildren(
        ...stuck.map(({ subject, what, isInCircle, why }) =>
          element(
            'li',
            {},
            link(subject, this.about[subject].path, 'font-semibold'),
            ` ${what}${isInCircle ? ', in a circle' : ''}`,
            element('ul', {}, ...why.map((each) => element('li', {}, link(each.subject, each.words)))),
          ),
        ),
      );
  }

  /** The drawings on which it can be watched. */
  showDrawings() {
    const place = document.getElementById('bench-watch');
    if (place.childElementCount) {
      return;
    }
    const tops = this.about.filter(({ parent, kind }, i) => {
      const hasInside = this.about.some((other) => other.parent === i);
      return parent < 0 && hasInside && (kind === 'STATE' || kind === 'STEP');
    });
    place.append(
      tops.length ? 'Watch on its drawing: ' : '',
      ...tops.map(({ kind, path, element: id }) =>
        element('a', {
          href: at(`element/${id}/${kind === 'STATE' ? 'states' : 'flow'}?bench=${this.key}`),
          textContent: path.split('.').slice(-2).join('.'),
        }),
      ),
    );
  }

  /** Boxes of a drawing that are active or wait say so, in shape and word. */
  mark() {
    const live = new Map();
    this.active.forEach(({ subject, words }) => {
      const id = this.about[subject].element;
      live.set(id, live.get(id) && !words ? live.get(id) : words || 'active');
    });
    Object.entries(this.waiting ?? {}).forEach(([id, words]) => live.set(id, shortWords(words)));
    document.querySelectorAll('#diagram .box').forEach((box) => {
      const words = live.get(box.dataset.select);
      box.classList.toggle('live', words === 'active');
      box.classList.toggle('live-waits', words !== undefined && words !== 'active');
      box.querySelector(':scope > .live-words')?.remove();
      if (words) {
        const tag = document.createElementNS('http://www.w3.org/2000/svg', 'text');
        tag.setAttribute('class', 'live-words');
        // Beside a control node, which is smaller than the words.
        const { width, height } = box.querySelector(':scope > .shape')?.getBBox() ?? {};
        const isSmall = height < 40;
        tag.setAttribute('x', isSmall ? width + 6 : 2);
        tag.setAttribute('y', isSmall ? height / 2 + 4 : -4);
        tag.textContent = words.length > 42 ? `${words.slice(0, 41)}…` : words;
        box.append(tag);
      }
    });
  }

  showValues({ values, inputs }) {
    document
      .getElementById('bench-values')
      .replaceChildren(
        ...Object.entries(values).flatMap(([path, value]) => [
          element('dt', { textContent: path }),
          element('dd', { className: 'mono', textContent: value }),
        ]),
      );
    document.querySelectorAll('[data-bench-set] input').forEach((field, i) => {
      if (document.activeElement !== field) {
        field.value = field.dataset.truth === 'true' ? String(inputs[i] !== 0) : number(inputs[i]);
      }
    });
  }

  /** Time runs as fast as it is told, measured by the clock of this page. */
  run() {
    const button = this.place.querySelector('[data-bench-run] span');
    if (this.timer) {
      this.stop();
      return;
    }
    button.textContent = 'Pause';
    this.last = performance.now();
    const tick = async () => {
      const passed = (performance.now() - this.last) / 1000;
      this.last = performance.now();
      const speed = Number(document.getElementById('bench-speed').value);
      // Whole milliseconds, so that what is kept of it can be read.
      const until = Math.round((this.now + passed * speed) * 1000) / 1000;
      const goesOn = await this.ask('advance', { until, toEvent: false });
      if (goesOn && this.timer && this.now < this.horizon && this.place.isConnected) {
        this.timer = setTimeout(tick, TICK);
      } else {
        this.stop();
      }
    };
    this.timer = setTimeout(tick, TICK);
  }

  stop() {
    clearTimeout(this.timer);
    this.timer = undefined;
    const button = this.place.querySelector('[data-bench-run] span');
    if (button) {
      button.textContent = 'Run';
    }
  }

  give(form) {
    const values = {};
    for (const field of form.querySelectorAll('input')) {
      const isTruth = field.dataset.truth === 'true';
      const value = typedValue(field.value, isTruth);
      if (field.value.trim() && value === undefined) {
        say(example(field.name, isTruth));
        field.focus();
        return;
      }
      if (value !== undefined) {
        values[field.name] = value;
      }
    }
    this.ask('give', { offer: Number(form.dataset.benchGive), values });
  }

  set(form) {
    const field = form.querySelector('input');
    const isTruth = field.dataset.truth === 'true';
    const value = typedValue(field.value, isTruth);
    if (value === undefined) {
      say(example(field.ariaLabel, isTruth));
      return;
    }
    document.activeElement?.blur();
    this.ask('set', { input: Number(form.dataset.benchSet), value });
  }

  async keep(form) {
    document.getElementById('bench-kept').hidden = true;
    const { name, remark, owner, tolerance } = form.elements;
    const kept = seconds(tolerance.value);
    if (!name.value.trim()) {
      say('Enter a name, for instance late vessel.');
      name.focus();
    } else if (kept === undefined) {
      say('Enter the time tolerance, for instance 0.5 s.');
      tolerance.focus();
    } else {
      this.stop();
      const { status, body } = await post(at(`bench/${this.key}/recording`), {
        name: name.value,
        remark: remark.value,
        owner: owner.value,
        tolerance: kept,
        way: 0,
      });
      const said = document.getElementById('bench-kept');
      said.hidden = false;
      said.replaceChildren(
        status === 200
          ? element(
              'span',
              {},
              'Kept: ',
              element('a', {
                href: at(`element/${body.made[0]}/sequence`),
                textContent: name.value,
                className: 'text-dusk',
              }),
            )
          : element('span', { className: 'text-ember-ink', textContent: body.message }),
      );
    }
  }

  /** A step of the story is told now. */
  async tell(button) {
    const { status, body } = await post(at(`bench/${this.key}/tell`), { step: button.dataset.tell });
    if (status === 200) {
      button.closest('li').classList.add('told');
      const told = document.getElementById('bench-told');
      told.textContent = `So far ${body.sentence}.`;
    } else {
      say(body.message);
    }
  }

  async explore(form) {
    const moves = Number(form.elements.moves.value);
    const horizon = seconds(form.elements.horizon.value);
    if (!(moves >= 1 && moves <= 40) || !horizon) {
      say('Enter at most 40 events, and a time such as 30 min.');
      return;
    }
    const button = form.querySelector('button');
    button.disabled = true;
    const { status, body } = await post(at(`bench/${this.key}/explore`), { moves, horizon });
    button.disabled = false;
    document
      .getElementById('bench-explored')
      .replaceChildren(
        ...(status === 200
          ? explored(body)
          : [element('p', { className: 'text-ember-ink', role: 'alert', textContent: body.message })]),
      );
  }

  /** Keeps a way that was found, under the name and in the package that the form for keeping has. */
  async keepWay(button) {
    const { owner, tolerance } = document.querySelector('[data-bench-keep]').elements;
    const { index, name } = button.dataset;
    const { status, body } = await post(at(`bench/${this.key}/explored`), {
      way: Number(index),
      name,
      remark: button.dataset.what,
      owner: owner.value,
      tolerance: seconds(tolerance.value) ?? 0,
    });
    if (status === 200) {
      button.replaceWith(
        element('a', { href: at(`element/${body.made[0]}/sequence`), textContent: name, className: 'text-dusk' }),
      );
    } else {
      say(body.message);
    }
  }

  pass(form) {
    const time = seconds(form.querySelector('input').value);
    if (time === undefined) {
      say('Enter a time, for instance 10 min, 3 h or 45 s.');
      return;
    }
    this.ask('advance', { until: this.now + time, toEvent: false });
  }
}

const DANGERS = { STANDSTILL: 'Standstill', VIOLATION: 'Violated', FAILURE: 'Cannot go on' };

/** What an exploration found, each with the way there. */
function explored({ found, unreached, asked, situations, isComplete }) {
  const all = isComplete
    ? 'All orders were tried: what is not listed cannot happen.'
    : 'Not all orders were tried within these bounds.';
  return [
    element('p', {
      textContent: `${situations} ${situations === 1 ? 'situation' : 'situations'}. ${all}${
        asked.length ? ` Asked in each: ${asked.join(', ')}.` : ''
      }`,
    }),
    element(
      'ul',
      { className: 'dangers' },
      ...found.map(({ kind, what, way, isReplayable }, index) =>
        element(
          'li',
          {},
          element('b', { textContent: `${DANGERS[kind]}: ` }),
          what,
          element('ol', {}, ...way.map((words) => element('li', { textContent: words }))),
          isReplayable
            ? element('button', {
                type: 'button',
                className: 'act small-act',
                textContent: 'Save as a recording',
                data: { keepWay: '', index: String(index), name: `way${index + 1}`, what },
              })
            : element('span', {
                className: 'quiet',
                textContent: 'It rests on chance or on an order at one instant; a recording could not repeat it.',
              }),
        ),
      ),
    ),
    unreached.length
      ? element(
          'p',
          {},
          isComplete ? 'Never reached: ' : 'Not reached yet: ',
          ...unreached.flatMap(({ path, element: id }, i) => [
            i ? ', ' : '',
            element('a', { href: at(`element/${id}`), textContent: path }),
          ]),
        )
      : '',
  ];
}

async function open(button) {
  button.disabled = true;
  const { status, body } = await post(`${branch()}/element/${button.dataset.benchOpen}/bench`);
  if (status === 201) {
    location.href = 'benchHere' in button.dataset ? `${location.pathname}?bench=${body.key}` : body.address;
  } else {
    button.disabled = false;
    say(body.message);
  }
}

export function startBench() {
  const place = document.querySelector('[data-bench]');
  document.addEventListener('click', (event) => {
    const opener = event.target.closest('[data-bench-open]');
    if (opener) {
      open(opener);
    }
  });
  if (!place) {
    return;
  }
  const bench = new Bench(place);
  bench.start();
  document.addEventListener('click', (event) => {
    const way = event.target.closest('[data-keep-way]');
    const told = event.target.closest('[data-tell]');
    if (told) {
      bench.tell(told);
    } else if (way) {
      bench.keepWay(way);
    } else if (event.target.closest('[data-bench-run]')) {
      bench.run();
    } else if (event.target.closest('[data-bench-event]')) {
      bench.ask('advance', { until: null, toEvent: true });
    } else if (event.target.closest('[data-bench-next]') && bench.next !== null) {
      bench.ask('advance', { until: bench.next, toEvent: false });
    }
  });
  document.addEventListener('change', (event) => {
    if (event.target.id === 'bench-story') {
      document.querySelectorAll('[data-story]').forEach((list) => {
        list.hidden = list.dataset.story !== event.target.value;
      });
    }
  });
  document.addEventListener('submit', (event) => {
    const form = event.target;
    if (form.matches('[data-bench-give], [data-bench-set], [data-bench-to], [data-bench-keep], [data-bench-explore]')) {
      event.preventDefault();
      if (form.matches('[data-bench-give]')) {
        bench.give(form);
      } else if (form.matches('[data-bench-set]')) {
        bench.set(form);
      } else if (form.matches('[data-bench-keep]')) {
        bench.keep(form);
      } else if (form.matches('[data-bench-explore]')) {
        bench.explore(form);
      } else {
        bench.pass(form);
      }
    }
  });
}
