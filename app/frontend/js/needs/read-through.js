// Reading a story through with stakeholders: one step at a time, full screen. Where an alternative leaves, it can be taken.
import { element } from '../frame/dom.js';

class ReadThrough {
  constructor(story) {
    this.story = story;
    this.dialog = element('dialog', { className: 'read-through', aria: { label: 'Read the story through' } });
    document.body.append(this.dialog);
    this.dialog.addEventListener('keydown', (event) => this.onKey(event));
    this.dialog.addEventListener('close', () => {
      this.dialog.remove();
      if (document.fullscreenElement) {
        document.exitFullscreen();
      }
    });
    this.take('', 0);
    this.dialog.showModal();
    document.documentElement.requestFullscreen?.().catch(() => {});
  }

  get path() {
    const steps = new Map(this.story.steps.map((step) => [step.id, step]));
    return this.story.way(this.way).path.map((id) => steps.get(id));
  }

  take(way, place) {
    this.way = way;
    this.place = place;
    this.draw();
  }

  /** The ways that leave at a step of the path, as far as they are told. */
  leaving(step) {
    return this.story.data.ways.filter((way) => way.leaves === step.id && way.label !== this.way);
  }

  draw() {
    const { path } = this;
    const step = path[this.place];
    const way = this.story.way(this.way);
    const isLast = this.place === path.length - 1;
    const button = (label, run, more = {}) => {
      const made = element('button', { type: 'button', className: 'act', textContent: label, ...more });
      made.addEventListener('click', run);
      return made;
    };
    const previous = path[this.place - 1];
    const entered = way.label && way.steps[0]?.id === step?.id;
    this.dialog.replaceChildren(
      element(
        'header',
        {},
        element('strong', { textContent: document.querySelector('h1').textContent }),
        element('span', {
          className: 'quiet',
          textContent: way.label ? `${way.label} ${way.title}: ${way.condition}` : 'Main story',
        }),
        button('Close', () => this.dialog.close(), { className: 'act faint' }),
      ),
      element(
        'div',
        { className: 'read-step', aria: { live: 'polite' } },
        element('p', {
          className: 'read-label mono',
          textContent: step ? [step.label, step.who].filter(Boolean).join(' · ') : '',
        }),
        ...(entered
          ? [element('p', { className: 'read-if', textContent: `${word(way)} ${lower(way.condition)}` })]
          : []),
        element('p', { className: 'read-text', textContent: step?.text ?? 'No step is told yet.' }),
        element('p', { className: 'quiet', textContent: isLast ? ending(way) : '' }),
      ),
      element(
        'div',
        { className: 'read-ways' },
        ...(step ? this.leaving(step) : []).map((other) =>
          button(`${other.label} ${word(other)} ${lower(other.condition)}`, () =>
            this.take(other.label, Math.max(0, other.path.indexOf(other.steps[0]?.id))),
          ),
        ),
        ...(way.label ? [button('Back to the main story', () => this.take('', this.placeInMain(way)))] : []),
      ),
      element(
        'footer',
        {},
        button('Previous', () => this.go(-1), { disabled: !previous }),
        element('span', { className: 'mono', textContent: `${path.length ? this.place + 1 : 0} of ${path.length}` }),
        button('Next', () => this.go(1), { disabled: isLast || !path.length, className: 'act primary' }),
      ),
    );
    (
      this.dialog.querySelector('footer .primary:enabled') ??
      this.dialog.querySelector('footer button:enabled, header button')
    ).focus();
  }

  placeInMain({ leaves }) {
    return Math.max(0, this.story.way('').path.indexOf(leaves));
  }

  go(by) {
    const next = this.place + by;
    if (next >= 0 && next < this.path.length) {
      this.take(this.way, next);
    }
  }

  onKey(event) {
    const by = { ArrowRight: 1, ArrowDown: 1, PageDown: 1, ArrowLeft: -1, ArrowUp: -1, PageUp: -1 }[event.key];
    if (by) {
      event.preventDefault();
      this.go(by);
    }
  }
}

const word = ({ kind }) => (kind === 'interruption' ? 'Whenever' : 'If');
const lower = (text) => text.charAt(0).toLowerCase() + text.slice(1);
const ending = ({ end }) =>
  ({ open: 'The story does not say how it continues.', ends: 'The story ends.', goes: '' })[end.how];

export function startReadThrough(story) {
  document.addEventListener('click', (event) => {
    if (event.target.closest('[data-read-through]') && story.data) {
      new ReadThrough(story);
    }
  });
}
