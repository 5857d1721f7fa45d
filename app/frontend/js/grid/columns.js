// The columns of the grid: which, in what order and how wide. The browser keeps them for each project; the address of a
// view holds them too.
import { branch } from '../frame/server.js';

const FIXED = [
  { key: 'tag', title: 'Id', width: 76, shown: true, sort: 'id' },
  { key: 'name', title: 'Name', width: 160, shown: false },
  { key: 'text', title: 'Requirement', width: 0, shown: true },
];
const COMPUTED = [
  { key: 'links', title: 'Links', width: 132, shown: true },
  { key: 'verdict', title: 'Verdict', width: 88, shown: true },
  { key: 'margin', title: 'Margin', width: 88, shown: true, number: true },
];
const SHOWN_AT_FIRST = new Set(['status']);
const NARROWEST = 56;
const NARROWEST_TEXT = 200;
const CHOICE = 28;
const GAP = 10;
const EDGES = 56;

/** What a layout says of all columns: those it names first and shown, the others hidden. */
function fromLayout(layout, all) {
  const named = layout
    .split(',')
    .map((part) => part.split('~'))
    .map(([key, width]) => ({
      key: decodeURIComponent(key),
      shown: true,
      ...(Number(width) >= NARROWEST && { width: Number(width) }),
    }));
  const known = named.filter(({ key }) => all.some((column) => column.key === key));
  return [
    ...known,
    ...all
      .filter(({ key }) => !known.some((each) => each.key === key))
      .map(({ key }) => ({ key, shown: key === 'text' })),
  ];
}

export class Columns {
  /**
   * @param attributes [{ name, type, choices, unit }]
   * @param layout the columns a view was kept with; without it those of the last time
   */
  constructor(attributes, layout) {
    this.key = `pyrite.grid.columns${branch()}`;
    this.ofView = Boolean(layout);
    const all = [
      ...FIXED,
      ...attributes.map((attribute) => ({
        key: `attribute:${attribute.name}`,
        title: attribute.name,
        attribute,
        sort: attribute.name,
        width: attribute.type === 'text' ? 180 : 92,
        shown: SHOWN_AT_FIRST.has(attribute.name),
      })),
      ...COMPUTED,
    ];
    const kept = layout ? fromLayout(layout, all) : JSON.parse(localStorage.getItem(this.key) ?? '[]');
    const place = (column) => {
      const found = kept.findIndex((each) => each.key === column.key);
      return found < 0 ? all.indexOf(column) : found;
    };
    this.all = all
      .map((column) => ({ ...column, ...kept.find((each) => each.key === column.key) }))
      .sort((a, b) => place(a) - place(b));
  }

  get shown() {
    return this.all.filter((column) => column.shown);
  }

  get template() {
    return [
      `${CHOICE}px`,
      ...this.shown.map((column) => (column.key === 'text' ? `minmax(${NARROWEST_TEXT}px, 1fr)` : `${column.width}px`)),
    ].join(' ');
  }

  /** So wide the table is at least; in a narrower window it scrolls sideways. */
  get least() {
    return EDGES + CHOICE + this.shown.reduce((sum, column) => sum + GAP + (column.width || NARROWEST_TEXT), 0);
  }

  /** Those shown, as an address has them: tag~76,text,attribute:status~92. */
  get layout() {
    return this.shown.map(({ key, width }) => (width ? `${encodeURIComponent(key)}~${width}` : key)).join(',');
  }

  /** The columns of a view stay its own: who changes them there does not change those of the other pages. */
  keep() {
    if (this.ofView) {
      return;
    }
    localStorage.setItem(this.key, JSON.stringify(this.all.map(({ key, width, shown }) => ({ key, width, shown }))));
  }

  resize(key, width) {
    this.all.find((column) => column.key === key).width = Math.max(NARROWEST, Math.round(width));
    this.keep();
  }

  show(key, shown) {
    this.all.find((column) => column.key === key).shown = shown;
    this.keep();
  }

  /** An attribute that was just added gets a column before those that are counted. */
  showNew(attribute) {
    this.all.splice(
      this.all.findIndex(({ key }) => key === COMPUTED[0].key),
      0,
      { key: `attribute:${attribute}`, width: 92, shown: true },
    );
    this.keep();
  }

  move(key, step) {
    const from = this.all.findIndex((column) => column.key === key);
    const to = from + step;
    if (to >= 0 && to < this.all.length) {
      this.all.splice(to, 0, this.all.splice(from, 1)[0]);
      this.keep();
    }
  }
}
