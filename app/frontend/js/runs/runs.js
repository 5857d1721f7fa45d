// Starting, watching and stopping runs, and the plot of a run's series.
import { branch, post } from '../frame/server.js';
import { onRefresh, onRun } from '../frame/live.js';
import { say } from '../frame/history.js';
import { plot } from './plot.js';

const CHOSEN = 'pyrite.runs.series';
const FIRST_SHOWN = 2;

async function start(button) {
  button.disabled = true;
  const { status, body } = await post(`${branch()}/element/${button.dataset.start}/start`);
  if (status === 201) {
    location.href = body.address;
  } else {
    button.disabled = false;
    say(body.message);
  }
}

async function verifyAll(button) {
  button.disabled = true;
  const { status, body } = await post(`${branch()}/verify-all`);
  if (status === 201) {
    location.href = `${branch()}/runs`;
  } else {
    button.disabled = false;
    say(body.message);
  }
}

function showProgress({ id, fraction = 0, done }) {
  for (const bar of document.querySelectorAll(`[data-progress="${id}"]`)) {
    const percent = done ? 100 : Math.floor(fraction * 100);
    bar.querySelector('i').style.width = `${percent}%`;
    bar.setAttribute('aria-valuenow', String(percent));
    const text = document.getElementById(`${bar.id}-number`);
    if (text) {
      text.textContent = `${percent} %`;
    }
  }
}

async function drawSeries() {
  const place = document.querySelector('[data-series]');
  if (!place) {
    return;
  }
  const response = await fetch(place.dataset.series, { headers: { 'X-Requested-With': 'fetch' } });
  const recorded = response.ok ? await response.json() : { times: [], series: [] };
  const chooser = document.getElementById('series');
  const key = `${CHOSEN}.${place.dataset.case}`;
  const remembered = JSON.parse(localStorage.getItem(key) ?? 'null');
  const suggested = place.dataset.suggested ? place.dataset.suggested.split('|') : [];
  const first = suggested.length ? suggested : recorded.series.slice(0, FIRST_SHOWN).map((s) => s.path);
  const chosen = new Set(remembered ?? first);
  const draw = () => {
    const traces = recorded.series.filter((s) => chosen.has(s.path)).map((s) => ({ label: s.path, unit: s.unit, values: s.values }));
    if (traces.length) {
      plot(place, recorded.times, traces);
    } else {
      place.textContent = 'Choose a series below to see it.';
    }
  };
  chooser.replaceChildren(...recorded.series.map((series) => {
    const line = document.createElement('label');
    const box = Object.assign(document.createElement('input'), { type: 'checkbox', checked: chosen.has(series.path) });
    box.addEventListener('change', () => {
      chosen[box.checked ? 'add' : 'delete'](series.path);
      localStorage.setItem(key, JSON.stringify([...chosen]));
      draw();
    });
    line.dataset.name = series.path.toLowerCase();
    line.append(box, `${series.path}${series.unit ? ` [${series.unit}]` : ''}`);
    return line;
  }));
  draw();
}

export function startRuns() {
  document.addEventListener('click', (event) => {
    const starter = event.target.closest('[data-start]');
    if (starter) {
      start(starter);
    }
    const all = event.target.closest('[data-verify-all]');
    if (all) {
      verifyAll(all);
    }
    const stopper = event.target.closest('[data-cancel]');
    if (stopper) {
      stopper.disabled = true;
      post(`${branch()}/runs/${stopper.dataset.cancel}/cancel`);
    }
  });
  document.addEventListener('input', (event) => {
    if (event.target.id === 'series-filter') {
      const wanted = event.target.value.trim().toLowerCase();
      document.querySelectorAll('#series label').forEach((line) => { line.hidden = !line.dataset.name.includes(wanted); });
    }
  });
  document.querySelectorAll('[data-progress]').forEach((bar) =>
    showProgress({ id: bar.dataset.progress, fraction: Number(bar.dataset.fraction) }));
  onRun(showProgress);
  drawSeries();
  onRefresh(drawSeries);
}
