// Plots of varying quantities over time: thin lines labelled at their ends, limits drawn as lines with the wrong side
// shaded where it is entered, a cursor that reads every trace. Each unit has a panel of its own over the same time.
import uPlot from 'uplot';
import { apart, clock, freeNear, number, rangeWith, tickLabels, violations } from './scales.js';
import { lastNames } from './series-names.js';

const COLOURS = ['#4a6a8a', '#7d4a78', '#5c7a3a', '#1f7a78', '#b8892b', '#5d636d'];
const EMBER = '#c2412d';
const GRAPHITE = '#5d636d';
const HEIGHT = 300;
/** Of a panel where there are several. */
const PANEL = 170;
const TIME_AXIS = 32;
/** About as wide as the words at a line are. */
const WORDS = 110;

/** The colour of a trace; traces of one group share it and differ by their dashes. */
function colour(traces, i) {
  const groups = [...new Set(traces.map((trace, k) => trace.group ?? k))];
  return COLOURS[groups.indexOf(traces[i].group ?? i) % COLOURS.length];
}

function line(plot, from, to, colour, dash) {
  const { ctx } = plot;
  ctx.save();
  ctx.beginPath();
  ctx.strokeStyle = colour;
  ctx.lineWidth = 1.2 * devicePixelRatio;
  ctx.setLineDash(dash.map((d) => d * devicePixelRatio));
  ctx.moveTo(...from);
  ctx.lineTo(...to);
  ctx.stroke();
  ctx.restore();
}

function label(plot, text, x, y, colour, align) {
  const { ctx } = plot;
  ctx.save();
  ctx.font = `${11 * devicePixelRatio}px "Hanken Grotesk"`;
  ctx.textAlign = align;
  ctx.textBaseline = 'middle';
  ctx.lineWidth = 3 * devicePixelRatio;
  ctx.strokeStyle = '#ffffff';
  ctx.strokeText(text, x, y);
  ctx.fillStyle = colour;
  ctx.fillText(text, x, y);
  ctx.restore();
}

/** Fills between a trace and a limit where the trace is on the wrong side. */
function shade(plot, series, limit, scale) {
  const { ctx, data } = plot;
  const base = plot.valToPos(limit.value, scale, true);
  ctx.save();
  ctx.fillStyle = 'rgba(194, 65, 45, 0.16)';
  for (const [first, last] of violations(data[series], limit)) {
    ctx.beginPath();
    ctx.moveTo(plot.valToPos(data[0][first], 'x', true), base);
    for (let k = first; k <= last; k++) {
      ctx.lineTo(plot.valToPos(data[0][k], 'x', true), plot.valToPos(data[series][k], scale, true));
    }
    ctx.lineTo(plot.valToPos(data[0][last], 'x', true), base);
    ctx.fill();
  }
  ctx.restore();
}

/** The lowest height for words between two places across, with no trace running through them; the one farthest from all if each has one. */
function clearBetween(plot, from, to) {
  const { bbox, data, series } = plot;
  const near = Array.from(data[0]).flatMap((instant, at) => {
    const across = plot.valToPos(instant, 'x', true);
    return across < from || across > to
      ? []
      : series
          .slice(1)
          .flatMap((each, i) => (data[i + 1][at] == null ? [] : [plot.valToPos(data[i + 1][at], each.scale, true)]));
  });
  const distance = (y) => Math.min(Infinity, ...near.map((other) => Math.abs(other - y)));
  const heights = Array.from(
    { length: 10 },
    (_, i) => bbox.top + bbox.height - (10 + i * 20) * devicePixelRatio,
  ).filter((y) => y > bbox.top);
  return (
    heights.find((y) => distance(y) > 11 * devicePixelRatio) ?? heights.sort((a, b) => distance(b) - distance(a))[0]
  );
}

function drawLines(plot, traces, lines, time) {
  const { left, top, width, height } = plot.bbox;
  const taken = [];
  for (const limit of lines) {
    if (limit.sense === 'DEADLINE') {
      const x = plot.valToPos(limit.value * time.factor, 'x', true);
      line(plot, [x, top], [x, top + height], EMBER, [5, 3]);
      const right = x > left + width * 0.75;
      const [from, to] = [right ? x - WORDS * devicePixelRatio : x, right ? x : x + WORDS * devicePixelRatio];
      label(
        plot,
        `deadline ${number(limit.value * time.factor)} ${time.unit}`,
        x + (right ? -6 : 6) * devicePixelRatio,
        clearBetween(plot, from, to),
        EMBER,
        right ? 'right' : 'left',
      );
      continue;
    }
    const index = traces.findIndex((trace) => trace.label === limit.trace);
    const scale = traces[index]?.unit || '1';
    const y = plot.valToPos(limit.value, scale, true);
    const wanted = limit.sense === 'TARGET';
    if (limit.sense === 'UPPER' || limit.sense === 'LOWER') {
      shade(plot, index + 1, limit, scale);
    }
    line(plot, [left, y], [left + width, y], wanted ? GRAPHITE : EMBER, [5, 3]);
    const words = {
      UPPER: 'at most',
      LOWER: 'at least',
      UPPER_ONCE: 'required: at most',
      LOWER_ONCE: 'required: at least',
      TARGET: 'reaches',
    }[limit.sense];
    label(
      plot,
      `${words} ${number(limit.value)} ${traces[index]?.unit ?? ''}`,
      left + 6 * devicePixelRatio,
      freeNear(y, taken, devicePixelRatio),
      wanted ? GRAPHITE : EMBER,
      'left',
    );
  }
}

/** Names of traces at their ends, moved apart where they would cover each other. */
function drawLabels(plot, traces) {
  const ends = traces
    .map((trace, i) => {
      const values = plot.data[i + 1];
      let last = values.length - 1;
      while (last > 0 && values[last] == null) {
        last--;
      }
      return {
        i,
        text: endOf(trace),
        y: plot.valToPos(values[last], trace.unit || '1', true),
      };
    })
    .filter((end) => Number.isFinite(end.y));
  const right = plot.bbox.left + plot.bbox.width;
  apart(ends, 13 * devicePixelRatio).forEach((end) =>
    label(plot, end.text, right + 6 * devicePixelRatio, end.y, traces[end.i].colour, 'left'),
  );
}

const endOf = (trace) => trace.end ?? lastNames(trace.label, 2);

/** The same for all panels, so that they stand under each other, px. */
const roomAtEnds = (traces) => Math.max(110, ...traces.map((trace) => 14 + 6.4 * endOf(trace).length));

/** Time below the last panel, the unit at the left. */
function axesOf(unit, time, isLast) {
  const style = {
    font: '11px "JetBrains Mono"',
    labelFont: '11px "Hanken Grotesk"',
    stroke: GRAPHITE,
    grid: { stroke: '#eee9dd', width: 1 },
    ticks: { stroke: '#ddd6c6', width: 1, size: 4 },
    values: (_, splits) => tickLabels(splits),
  };
  return [
    isLast
      ? { ...style, label: `time [${time.unit}]`, labelSize: 18, size: TIME_AXIS }
      : { ...style, size: 8, values: (_, splits) => splits.map(() => '') },
    { ...style, scale: unit || '1', label: unit === '' ? 'ratio' : unit, labelSize: 18, size: 56, side: 3 },
  ];
}

/** One panel: the traces of a unit with their limits. */
function panel(canvas, unit, shown) {
  const { times, time, lines, range, onRange, height, isLast, sync, read } = shown;
  const traces = shown.traces.filter((trace) => trace.unit === unit);
  const own = lines.filter((each) => each.sense === 'DEADLINE' || traces.some((trace) => trace.label === each.trace));
  const limits = own.filter((each) => each.sense !== 'DEADLINE').map((each) => each.value);
  return new uPlot(
    {
      width: canvas.parentElement.clientWidth - 30,
      height,
      scales: {
        x: { time: false, ...(range ? { min: range[0] * time.factor, max: range[1] * time.factor } : {}) },
        [unit || '1']: { range: (_, low, high) => rangeWith(limits, low, high) },
      },
      legend: { show: false },
      axes: axesOf(unit, time, isLast),
      padding: [10, roomAtEnds(shown.traces), 0, 0],
      cursor: {
        points: { size: 6 },
        y: false,
        drag: { x: true, y: false, setScale: !onRange },
        ...(sync ? { sync: { key: sync, scales: ['x', null] } } : {}),
      },
      series: [
        {},
        ...traces.map((trace) => ({
          label: trace.label,
          scale: trace.unit || '1',
          width: 1.4,
          // On whole pixels a slope becomes a staircase.
          pxAlign: false,
          points: { show: false },
          stroke: trace.colour,
          dash: trace.dash ?? [],
          spanGaps: false,
        })),
      ],
      hooks: {
        setSelect: [
          (chart) => {
            if (onRange && chart.select.width > 4) {
              onRange(
                [
                  chart.posToVal(chart.select.left, 'x'),
                  chart.posToVal(chart.select.left + chart.select.width, 'x'),
                ].map((x) => x / time.factor),
              );
            }
          },
        ],
        draw: [
          (chart) => {
            drawLines(chart, traces, own, time);
            drawLabels(chart, traces);
          },
        ],
        setCursor: [(chart) => read(chart.cursor.idx)],
      },
    },
    [Array.from(times, (t) => t * time.factor), ...traces.map((trace) => Array.from(trace.values))],
    canvas,
  );
}

/** What every trace is at an instant. */
function readingAt(at, times, traces, time) {
  return at == null
    ? ''
    : [
        `t ${number(times[at] * time.factor)} ${time.unit}`,
        ...traces.map((t) => `${t.end ?? lastNames(t.label, 1)} ${number(t.values[at])} ${t.unit}`),
      ].join('   ');
}

let plots = 0;

/**
 * Draws traces into a place of the page, instead of what was there.
 * @param place an element
 * @param times in s
 * @param traces [{ label, unit, values }]
 *   also { end } for another text at the line's end, { dash } and { group } for traces of one colour
 * @param lines [{ sense, trace, value }], values in the unit of the trace, instants in s
 * @param onRange called with [from, to] in s when somebody looks closer, with null to see all again
 * @param range what is looked at, in s
 */
export function plot(place, times, traces, lines = [], onRange = null, range = null) {
  const time = clock((range ? range[1] : times.at(-1)) ?? 0);
  const painted = traces.map((trace, i) => ({ ...trace, colour: colour(traces, i) }));
  const units = [...new Set(painted.map((trace) => trace.unit))];
  const title = Object.assign(document.createElement('div'), { className: 'plot-title quiet' });
  const reading = document.createElement('output');
  title.append(
    Object.assign(document.createElement('span'), { textContent: traces.length === 1 ? traces[0].label : '' }),
    reading,
  );
  const canvases = units.map(() => Object.assign(document.createElement('div'), { className: 'panel' }));
  place.replaceChildren(title, ...canvases);
  delete place.dataset.panels;
  const heightOf = (i) => (units.length === 1 ? HEIGHT : i === units.length - 1 ? PANEL + TIME_AXIS : PANEL);
  const sync = units.length > 1 ? `plot ${++plots}` : null;
  const charts = units.map((unit, i) =>
    panel(canvases[i], unit, {
      times,
      time,
      lines,
      range,
      onRange,
      sync,
      traces: painted,
      height: heightOf(i),
      isLast: i === units.length - 1,
      read: (at) => {
        reading.textContent = readingAt(at, times, painted, time);
      },
    }),
  );
  if (onRange) {
    canvases.forEach((canvas) => canvas.addEventListener('dblclick', () => onRange(null)));
  }
  new ResizeObserver(() =>
    charts.forEach((chart, i) => chart.setSize({ width: place.clientWidth - 30, height: heightOf(i) })),
  ).observe(place);
}
