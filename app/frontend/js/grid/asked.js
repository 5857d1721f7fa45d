// What the grid is asked to show: by its controls, and in the address, so that a view opens as it was kept.
import { branch } from '../frame/server.js';
import { element } from '../frame/dom.js';

const KEYS = ['spec', 'q', 'show', 'where', 'sort', 'group'];
const ALL = 'all';

export class Asked {
  constructor(host) {
    this.host = host;
    const asked = new URLSearchParams(location.search);
    this.descending = asked.get('sort')?.startsWith('-') ?? false;
    this.conditions = asked.getAll('where').filter(Boolean);
    ['sort', 'group'].forEach((name) => {
      if (asked.get(name)) {
        this.control(name).value = asked.get(name).replace(/^-/, '');
      }
    });
    this.words.value = asked.get('q') ?? '';
  }

  control(name) {
    return this.host.querySelector(`[data-choose="${name}"]`);
  }

  get words() {
    return this.host.querySelector('[data-filter]');
  }

  /** As the server takes it. */
  query() {
    const query = new URLSearchParams();
    const put = (key, text) => text && query.set(key, text);
    const value = (name) => this.control(name)?.value ?? '';
    put('spec', value('spec'));
    put('q', this.words.value.trim());
    this.conditions.forEach((condition) => query.append('where', condition));
    put('show', value('show'));
    put('sort', value('sort') && (this.descending ? '-' : '') + value('sort'));
    put('group', value('group'));
    return query;
  }

  /** The address asks for the same from now on. */
  keep() {
    const address = new URL(location.href);
    const query = this.query();
    KEYS.forEach((key) => {
      address.searchParams.delete(key);
      query.getAll(key).forEach((each) => address.searchParams.append(key, each));
    });
    history.replaceState(history.state, '', address);
  }

  /** How the rows are ordered by a column, as the accessibility tree has it; null if they are not. */
  sorted(column) {
    const by = column.sort && this.control('sort').value === column.sort;
    return by ? (this.descending ? 'descending' : 'ascending') : null;
  }

  /** Up, then down, then in the order of the document again. */
  orderBy(key) {
    const control = this.control('sort');
    const again = control.value === key;
    control.value = again && this.descending ? '' : key;
    this.descending = again && !this.descending;
    control.dispatchEvent(new Event('change', { bubbles: true }));
  }

  /** What stands in the place of rows where there are none, with what to do about it. */
  nothing(editable) {
    const query = this.query();
    const narrowed = query.has('q') || query.has('where') || (query.get('show') ?? ALL) !== ALL;
    const all = element('a', {
      href: `${branch()}/requirements${query.has('spec') ? `?spec=${query.get('spec')}` : ''}`,
      textContent: 'Show all',
    });
    const words = narrowed
      ? ['Nothing meets the filter. ', all]
      : [
          `There is nothing here yet.${editable ? ' Press N for a requirement or H for a heading, or paste rows of a spreadsheet.' : ''}`,
        ];
    return element('div', { role: 'row', className: 'grid-nothing' }, element('span', { role: 'gridcell' }, ...words));
  }
}
