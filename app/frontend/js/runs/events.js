// The events of a run in their order: found by words, by kind and by the stretch of time that the timeline shows.
import { at } from '../frame/server.js';
import { onRefresh } from '../frame/live.js';
import { element } from '../frame/dom.js';
import { number } from './scales.js';

const PAGE = 200;

class Events {
  constructor(place) {
    this.place = place;
    this.run = place.dataset.events;
    this.range = null;
    this.place.addEventListener('scroll', () => {
      if (this.next > 0 && place.scrollTop + place.clientHeight > place.scrollHeight - 200) {
        this.more();
      }
    });
  }

  async fetch() {
    this.next = 0;
    const table = element('table', { className: 'rows even' }, element('tbody'));
    this.table = table;
    await this.more();
    if (this.table === table) {
      this.place.replaceChildren(
        table.tBodies[0].rows.length
          ? table
          : element('p', { className: 'quiet', textContent: 'No event meets the filter.' }),
      );
    }
  }

  async more() {
    const { next: start, table } = this;
    this.next = -1;
    const query = new URLSearchParams({
      start: String(start),
      most: String(PAGE),
      text: document.getElementById('events-filter').value,
      kind: document.getElementById('events-kind').value,
    });
    if (this.range) {
      query.set('from', this.range[0]);
      query.set('to', this.range[1]);
    }
    const response = await fetch(at(`runs/${this.run}/events.json?${query}`), {
      headers: { 'X-Requested-With': 'fetch' },
    }).catch(() => undefined);
    if (this.table !== table || !response?.ok) {
      return;
    }
    const { events, next } = await response.json();
    this.next = next;
    table.tBodies[0].append(...events.map((event) => this.line(event)));
  }

  line({ time, kind, path, element: id, detail }) {
    return element(
      'tr',
      { data: { select: id } },
      element('td', { className: 'number', textContent: `${number(time)} s` }),
      element('td', { textContent: kind.toLowerCase() }),
      element('td', {}, element('a', { href: at(`element/${id}`), textContent: path })),
      element('td', { textContent: detail }),
    );
  }
}

export function startEvents() {
  let current = null;
  const begin = () => {
    const place = document.querySelector('[data-events]');
    if (place && place !== current?.place) {
      current = new Events(place);
      current.fetch();
    }
  };
  document.addEventListener('input', (event) => {
    if (event.target.id === 'events-filter' || event.target.id === 'events-kind') {
      current?.fetch();
    }
  });
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-events-of]');
    if (button && current) {
      const kind = document.getElementById('events-kind');
      kind.value = button.dataset.eventsOf;
      current.fetch();
      kind.scrollIntoView({ block: 'center' });
      kind.focus({ preventScroll: true });
    }
  });
  document.addEventListener('pyrite:window', ({ detail }) => {
    if (current) {
      current.range = detail.range;
      current.fetch();
    }
  });
  onRefresh(begin);
  begin();
}
