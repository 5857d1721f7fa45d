// The plot of what one run or several recorded: which series to see, looking closer, limits of requirements, a picture to keep.
import { at } from '../frame/server.js';
import { onRefresh } from '../frame/live.js';
import { plot } from './plot.js';
import { lastNames } from './series-names.js';

const CHOSEN = 'pyrite.runs.series';
const FIRST_SHOWN = 2;
const SLICES = 1200;
const TRY_AGAIN = 1500;

/** What the server answers, null where it refuses, undefined where it cannot be reached. */
const getJson = async (path) => {
  const response = await fetch(at(path), { headers: { 'X-Requested-With': 'fetch' } }).catch(() => undefined);
  return response && (response.ok ? response.json() : null);
};

/** Series of several runs on the instants of all of them, read off between neighbours; null outside a run's own span. */
function together(recordings) {
  const times = [...new Set(recordings.flatMap((recording) => Array.from(recording.times)))].sort((a, b) => a - b);
  const values = (own, of) => {
    let k = 0;
    return times.map((t) => {
      while (k < own.length && own[k] < t) {
        k++;
      }
      if (k >= own.length || (k === 0 && own[0] > t)) {
        return null;
      }
      return own[k] === t ? of[k] : of[k - 1] + ((of[k] - of[k - 1]) * (t - own[k - 1])) / (own[k] - own[k - 1]);
    });
  };
  return { times, of: (recording, series) => values(recording.times, series.values) };
}

class SeriesPlot {
  constructor(place) {
    this.place = place;
    this.runs = place.dataset.runs.split(' ');
    // Runs of different parts have in common what stands within each.
    this.within = place.dataset.within === 'true';
    this.key = `${CHOSEN}.${place.dataset.case}`;
    this.range = null;
  }

  async start() {
    const offers = await Promise.all(
      this.runs.map((run) => getJson(`runs/${run}/series-names.json?within=${this.within}`)),
    );
    if (offers.includes(undefined)) {
      setTimeout(() => this.place.isConnected && this.start(), TRY_AGAIN);
      return;
    }
    const series = new Map();
    offers.forEach((offer) => (offer?.series ?? []).forEach((each) => series.set(each.path, each)));
    this.series = [...series.values()];
    this.lines = this.runs.length === 1 ? (offers[0]?.lines ?? []) : [];
    const remembered = JSON.parse(localStorage.getItem(this.key) ?? 'null')?.filter((path) => series.has(path));
    const suggested = (this.place.dataset.suggested || '').split('|').filter((path) => series.has(path));
    const first = suggested.length ? suggested : this.series.slice(0, FIRST_SHOWN).map((each) => each.path);
    this.chosen = new Set(remembered?.length && this.runs.length === 1 ? remembered : first);
    this.offer();
    await this.draw();
  }

  offer() {
    document.getElementById('series').replaceChildren(
      ...this.series.map(({ path, unit }) => {
        const line = document.createElement('label');
        const box = Object.assign(document.createElement('input'), {
          type: 'checkbox',
          checked: this.chosen.has(path),
        });
        box.addEventListener('change', () => this.choose(path, box.checked));
        line.dataset.name = path.toLowerCase();
        line.append(box, `${path}${unit ? ` [${unit}]` : ''}`);
        return line;
      }),
    );
    this.narrow();
  }

  choose(path, wanted) {
    this.chosen[wanted ? 'add' : 'delete'](path);
    if (this.runs.length === 1) {
      localStorage.setItem(this.key, JSON.stringify([...this.chosen]));
    }
    this.draw();
  }

  clear() {
    this.chosen.clear();
    this.offer();
    this.draw();
  }

  narrow() {
    const wanted = document.getElementById('series-filter').value.trim().toLowerCase();
    document.querySelectorAll('#series label').forEach((line) => {
      line.hidden = !line.dataset.name.includes(wanted);
    });
  }

  /** Fetches as many instants as the plot can show of what is looked at, and draws them. */
  async draw() {
    if (!this.chosen.size) {
      this.place.textContent = 'Choose a series below to see it.';
      return;
    }
    const query = new URLSearchParams([...this.chosen].map((path) => ['path', path]));
    query.set('slices', String(SLICES));
    query.set('within', String(this.within));
    if (this.range) {
      query.set('from', String(this.range[0]));
      query.set('to', String(this.range[1]));
    }
    const asked = query.toString();
    this.asked = asked;
    const recordings = (await Promise.all(this.runs.map((run) => getJson(`runs/${run}/series.json?${asked}`)))).map(
      (each) => each ?? { times: [], series: [] },
    );
    if (this.asked !== asked) {
      return;
    }
    const { times, of } =
      this.runs.length === 1 ? { times: recordings[0].times, of: (_, series) => series.values } : together(recordings);
    const traces = recordings.flatMap((recording, i) =>
      recording.series.map((series) => ({
        label: series.path,
        end: this.runs.length === 1 ? undefined : `${lastNames(series.path, 1)}, run ${this.runs[i]}`,
        unit: series.unit,
        values: of(recording, series),
        dash:
          i === 0
            ? []
            : [
                [7, 4],
                [2, 3],
                [9, 3, 2, 3],
                [4, 4],
                [12, 4],
              ][i - 1],
        group: series.path,
      })),
    );
    // So that others can tell which stretch of time is shown, in s; empty for all of it.
    this.place.dataset.range = this.range?.join(' ') ?? '';
    const lines = this.lines.filter((line) => line.sense === 'DEADLINE' || this.chosen.has(line.trace));
    plot(
      this.place,
      times,
      traces,
      lines,
      (range) => {
        this.range = range;
        this.draw();
        document.dispatchEvent(new CustomEvent('pyrite:window', { detail: { range, from: this } }));
      },
      this.range,
    );
  }

  /** The picture as it is on the page, with a white ground and what it shows written above. */
  save() {
    const canvases = [...this.place.querySelectorAll('canvas')];
    if (!canvases.length) {
      return;
    }
    const head = 34 * devicePixelRatio;
    const picture = Object.assign(document.createElement('canvas'), {
      width: canvases[0].width,
      height: canvases.reduce((sum, each) => sum + each.height, head),
    });
    const ctx = picture.getContext('2d');
    ctx.fillStyle = '#ffffff';
    ctx.fillRect(0, 0, picture.width, picture.height);
    ctx.fillStyle = '#23262b';
    ctx.font = `${13 * devicePixelRatio}px "Hanken Grotesk"`;
    ctx.fillText(
      `${document.querySelector('h1').textContent.replace(/\s+/g, ' ').trim()} · ${[...this.chosen].join(', ')}`,
      12 * devicePixelRatio,
      22 * devicePixelRatio,
      picture.width - 24 * devicePixelRatio,
    );
    let top = head;
    canvases.forEach((canvas) => {
      ctx.drawImage(canvas, 0, top);
      top += canvas.height;
    });
    picture.toBlob((blob) => {
      const link = Object.assign(document.createElement('a'), {
        href: URL.createObjectURL(blob),
        download: `run-${this.runs.join('-')}.png`,
      });
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 1000);
    });
  }
}

export function startSeries() {
  let current = null;
  const begin = () => {
    const place = document.querySelector('[data-runs]');
    if (place && place !== current?.place) {
      current = new SeriesPlot(place);
      current.start();
    }
  };
  document.addEventListener('pyrite:window', ({ detail }) => {
    if (current && detail.from !== current && current.runs.length === 1) {
      current.range = detail.range;
      current.draw();
    }
  });
  document.addEventListener('input', (event) => {
    if (event.target.id === 'series-filter') {
      current?.narrow();
    }
  });
  document.addEventListener('click', (event) => {
    if (event.target.closest('[data-series-none]')) {
      current?.clear();
    } else if (event.target.closest('[data-plot-png]')) {
      current?.save();
    }
  });
  begin();
  onRefresh(begin);
}
