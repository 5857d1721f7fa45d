// The shapes of a drawing as SVG: a box with its compartments and ports, a line with its ends and label, the marks at ends.

const SPACE = 'http://www.w3.org/2000/svg';
const ROUND = 9;
const PORT = 6;
/** The height of what names a lifeline. */
const HEAD = 44;

/** An SVG element with attributes; null ones are left out. */
export function svg(tag, attributes = {}, ...children) {
  const made = document.createElementNS(SPACE, tag);
  for (const [name, value] of Object.entries(attributes)) {
    if (value !== null && value !== undefined) {
      made.setAttribute(name, value);
    }
  }
  made.append(...children);
  return made;
}

const text = (kind, x, y, words, more = {}) => svg('text', { class: kind, x, y, ...more }, words);

const marker = (id, box, refX, width, height, ...paths) =>
  svg(
    'marker',
    {
      id,
      viewBox: box,
      refX,
      refY: height / 2,
      markerWidth: width,
      markerHeight: height,
      markerUnits: 'userSpaceOnUse',
      orient: 'auto',
    },
    ...paths.map(([kind, d]) => svg('path', { class: kind, d })),
  );

const TRIANGLE = 'M1 1 13 7 1 13z';
const DIAMOND = 'M1 6 9 1.5 17 6 9 10.5z';

/** The marks at the ends of lines (SysML 2.0, 8.2.3). */
export const defs = () =>
  svg(
    'defs',
    {},
    marker('triangle', '0 0 14 14', 13, 14, 14, ['head', TRIANGLE]),
    marker(
      'typing',
      '-9 0 23 14',
      13,
      23,
      14,
      ['head', TRIANGLE],
      ['dot', 'M-5.6 3.4a1.6 1.6 0 1 0 .01 0zM-5.6 10.6a1.6 1.6 0 1 0 .01 0z'],
    ),
    marker('redefining', '-9 0 23 14', 13, 23, 14, ['head', TRIANGLE], ['open', 'M-4 1.5v11']),
    marker('diamond', '0 0 18 12', 1, 18, 12, ['dot', DIAMOND]),
    marker('diamond-open', '0 0 18 12', 1, 18, 12, ['head', DIAMOND]),
    marker('arrow', '0 0 12 12', 11, 12, 12, ['open', 'M1.5 1.5 11 6 1.5 10.5']),
    marker('flow-head', '0 0 12 12', 11, 12, 12, ['dot', 'M1 1.5 11 6 1 10.5z']),
  );

const ENDS = {
  composition: ['diamond', null],
  reference: ['diamond-open', null],
  specialization: [null, 'triangle'],
  subsetting: [null, 'triangle'],
  redefinition: [null, 'redefining'],
  typing: [null, 'typing'],
  satisfaction: [null, 'arrow'],
  dependency: [null, 'arrow'],
  trace: [null, 'arrow'],
  flow: [null, 'flow-head'],
  inclusion: [null, 'arrow'],
  succession: [null, 'arrow'],
  message: [null, 'flow-head'],
};

/** The outlines of what is no plain box, by width and height. */
const OUTLINES = {
  decision: (w, h) => `M${w / 2} 0 ${w} ${h / 2} ${w / 2} ${h} 0 ${h / 2}z`,
  bar: (w, h) => `M0 0H${w}V${h}H0z`,
  start: (w, h) => circle(w / 2, h / 2, w / 2 - 2),
  done: (w, h) => `${circle(w / 2, h / 2, w / 2 - 1)}${circle(w / 2, h / 2, w / 2 - 5)}`,
  receive: (w, h) => `M0 0H${w}V${h}H0L12 ${h / 2}z`,
  send: (w, h) => `M0 0H${w - 12}L${w} ${h / 2} ${w - 12} ${h}H0z`,
  use_case: (w, h) =>
    `M${h / 2} 0H${w - h / 2}A${h / 2} ${h / 2} 0 0 1 ${w - h / 2} ${h}H${h / 2}A${h / 2} ${h / 2} 0 0 1 ${h / 2} 0z`,
  lifeline: (w) => `M0 0H${w}V${HEAD}H0z`,
  event: (w, h) => `M10 0H${w - 10}L${w} ${h / 2} ${w - 10} ${h}H10L0 ${h / 2}z`,
  actor: (w, h) => `M0 ${h}V14Q0 0 14 0H${w - 14}Q${w} 0 ${w} 14V${h}z`,
};
const circle = (x, y, r) => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`;
/** Shapes too small for texts and handles. */
const BARE = new Set(['decision', 'bar', 'start', 'done']);

/** What stands where its time is, and takes the size that follows. */
const TIMED = new Set(['lifeline', 'event']);

const outline = (box, kind, round) =>
  OUTLINES[box.shape]
    ? svg('path', { class: kind, d: OUTLINES[box.shape](box.width, box.height) })
    : svg('rect', { class: kind, width: box.width, height: box.height, rx: round });

const url = (id) => (id ? `url(#${id})` : null);

/** The name of a box; of a step that is told, its text. */
const named = ({ title, parts }) =>
  title || (parts ?? []).flatMap(({ rows }) => rows.map(({ text: words }) => words)).join(' ');

/** The line below the head of a lifeline; it can be taken hold of at some distance. */
function lifeShapes({ width, height }, editable) {
  const d = `M${width / 2} ${HEAD}V${height}`;
  return [
    svg('path', { class: 'life', d }),
    svg('path', { class: `life-reach${editable ? ' border' : ''}`, d }, svg('title', {}, 'Drag to another lifeline')),
  ];
}

/** A box without what stands in it. */
export function boxShape(box, editable) {
  const round = box.shape === 'usage' || box.shape === 'step' ? ROUND : 0;
  const isBare = BARE.has(box.shape);
  const isTimed = TIMED.has(box.shape);
  const node = svg('g', {
    class: `box ${box.family} ${box.shape}${box.dashed ? ' referential' : ''}${box.open && box.openable ? ' open-box' : ''}`,
    tabindex: -1,
    role: 'group',
    'aria-roledescription': 'box',
    'aria-label': `${box.keyword} ${named(box)}${box.inherited ? ', inherited' : ''}`,
    'data-select': box.id,
    'data-key': box.key,
  });
  node.append(outline(box, 'shape', round));
  if (box.shape === 'lifeline') {
    node.append(...lifeShapes(box, editable));
  }
  if (box.shape === 'event') {
    node.append(text('event-name', box.width / 2, box.height / 2 + 4, box.title, { 'text-anchor': 'middle' }));
  } else if (!isBare) {
    const isPlain = !OUTLINES[box.shape];
    node.append(
      ...(isPlain ? [svg('path', { class: 'tint', d: `M1.5 ${round}V${box.height - round}` })] : []),
      text('keyword', box.width / 2, 17, box.title ? `«${box.keyword}»` : box.keyword, { 'text-anchor': 'middle' }),
    );
    if (box.title) {
      node.append(
        text('title', box.width / 2, 34, `${box.inherited ? '^' : ''}${box.title}`, { 'text-anchor': 'middle' }),
      );
    }
  }
  for (const part of box.parts) {
    if (box.title && !OUTLINES[box.shape]) {
      node.append(svg('path', { class: 'rule', d: `M0 ${part.y}h${box.width}` }));
    }
    if (part.title) {
      node.append(text('heading', 12, part.y + 14, part.title));
    }
    for (const row of part.rows) {
      const line = text(`line${row.prose ? ' prose' : ''}`, OUTLINES[box.shape] ? 24 : 12, row.y, row.text, {
        'data-select': row.id,
      });
      line.prepend(svg('title', {}, row.full));
      node.append(line);
    }
  }
  if (editable && !isBare && !isTimed) {
    node.append(outline(box, 'border', round));
  }
  box.ports.forEach((port) => node.append(portShape(port, box)));
  if (editable && !isBare && !isTimed) {
    node.append(
      svg(
        'circle',
        { class: 'join', r: 6, cx: box.width, cy: box.height },
        svg('title', {}, 'Drag to another box to join them (C)'),
      ),
      svg(
        'path',
        { class: 'grip', d: `M${box.width - 4} ${box.height - 12}v8h-8` },
        svg('title', {}, 'Drag to resize'),
      ),
    );
  }
  if (box.openable) {
    node.append(
      svg(
        'g',
        { class: 'toggle', role: 'button', 'aria-label': `${box.open ? 'Close' : 'Open'} ${box.title}` },
        svg('circle', { cx: box.width - 14, cy: 14, r: 12, class: 'reach' }),
        svg('circle', { cx: box.width - 14, cy: 14, r: 8 }),
        svg('path', { d: `M${box.width - 18} 14h8${box.open ? '' : 'm-4 -4v8'}` }),
      ),
    );
  }
  return node;
}

const INWARD = { left: 0, top: 90, right: 180, bottom: 270 };
const ARROWS = {
  in: 'M-4 0h7m-3-3 3 3-3 3',
  out: 'M4 0h-7m3-3-3 3 3 3',
  inout: 'M-4 0h8m-2.5-2.5 2.5 2.5-2.5 2.5M-1.5-2.5-4 0l2.5 2.5',
};

/** A port: a square on the border, with an arrow where it has a direction, and its name beside it. */
export function portShape(port, box) {
  const outside = box.open;
  const node = svg('g', {
    class: 'port',
    tabindex: -1,
    role: 'group',
    'aria-roledescription': 'port',
    'aria-label': `port ${port.declaration}${port.way === 'none' ? '' : `, ${port.way}`}`,
    transform: `translate(${port.x} ${port.y})`,
    'data-select': port.id,
    'data-key': port.key,
  });
  node.append(
    svg('title', {}, port.declaration),
    svg('rect', { class: 'reach', x: -12, y: -12, width: 24, height: 24 }),
    svg('rect', { class: 'shape', x: -PORT, y: -PORT, width: 2 * PORT, height: 2 * PORT }),
  );
  if (ARROWS[port.way]) {
    node.append(svg('path', { class: 'way', d: ARROWS[port.way], transform: `rotate(${INWARD[port.side]})` }));
  }
  const [x, y, anchor] = {
    left: outside ? [-10, 17, 'end'] : [11, 4, 'start'],
    right: outside ? [10, 17, 'start'] : [-11, 4, 'end'],
    top: outside ? [9, -9, 'start'] : [0, 19, 'middle'],
    bottom: outside ? [9, 18, 'start'] : [0, -11, 'middle'],
  }[port.side];
  node.append(text('port-name', x, y, port.name, { 'text-anchor': anchor }));
  return node;
}

export function lineShape(line, editable) {
  const [start, end] = ENDS[line.relation] ?? [null, null];
  const node = svg('g', {
    class: `edge ${line.relation}${line.problem ? ' misfit' : ''}`,
    tabindex: -1,
    role: 'group',
    'aria-roledescription': 'line',
    'aria-label': `${line.relation}${line.label ? ` ${line.label}` : ''}${line.problem ? `; does not fit: ${line.problem}` : ''}`,
    'data-line': line.key,
    'data-select': line.id,
  });
  node.append(
    svg('path', { class: 'reach' }),
    svg('path', { class: 'way', 'marker-start': url(start), 'marker-end': url(end) }),
  );
  const label = `${line.problem ? '≠ ' : ''}${line.label}`;
  if (label) {
    node.append(text('label', 0, 0, label));
  }
  if (line.problem) {
    node.prepend(svg('title', {}, line.problem));
  }
  if (editable) {
    node.append(
      svg('circle', { class: 'end', r: 5, 'data-end': 'from' }),
      svg('circle', { class: 'end', r: 5, 'data-end': 'to' }),
    );
  }
  return node;
}

/** Gives a line its way and its label a place. */
export function shapeLine(line, path, [x, y]) {
  line.node.querySelectorAll(':scope > path').forEach((each) => each.setAttribute('d', path));
  const label = line.node.querySelector(':scope > text');
  label?.setAttribute('x', x);
  label?.setAttribute('y', y);
  line.node.querySelectorAll(':scope > .end').forEach((each) => {
    const [ex, ey] = each.dataset.end === 'from' ? line.points[0] : line.points.at(-1);
    each.setAttribute('cx', ex);
    each.setAttribute('cy', ey);
  });
}
