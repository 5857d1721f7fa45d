// The mark of a verdict, drawn as the pages draw it: a shape of its own, broken in outline where it is stale.
const SHAPES = {
  pass: ['<circle cx="8" cy="8" r="7"', '<path d="M4.8 8.3l2.2 2.2 4.2-4.7"'],
  fail: ['<path d="M8 .6 15.4 8 8 15.4 .6 8z"', '<path d="M5.9 5.9l4.2 4.2M10.1 5.9l-4.2 4.2"'],
  error: ['<path d="M8 1.2 15.2 14.4H.8z"', null],
  inconclusive: ['<circle cx="8" cy="8" r="6.4"', null],
};

/** @param verdict { kind, words, stale } */
export function verdictMark({ kind, words, stale }) {
  const [outer, inner] = SHAPES[kind] ?? SHAPES.inconclusive;
  const filled = !stale && kind !== 'inconclusive';
  const mark = Object.assign(document.createElement('span'), { className: `verdict ${kind}` });
  const outline = `${outer} fill="${filled ? 'currentColor' : 'none'}"${stale ? ' stroke-dasharray="2.6 1.9"' : ''}/>`;
  const sign = inner ? `${inner} stroke="${stale ? 'currentColor' : '#fff'}"/>` : '';
  const attributes = 'viewBox="0 0 16 16" aria-hidden="true" fill="none" stroke="currentColor" stroke-width="1.6"';
  mark.innerHTML = `<svg ${attributes}>${outline}${sign}</svg>`;
  mark.append(Object.assign(document.createElement('span'), { textContent: words }));
  return mark;
}
