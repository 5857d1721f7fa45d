// The drawing of a recording: its messages and events, a row for each step.
import { at } from '../frame/server.js';
import { onRefresh } from '../frame/live.js';
import { Messages } from './messages.js';

async function draw() {
  const place = document.querySelector('[data-sequence]');
  if (!place) {
    return;
  }
  const response = await fetch(at(place.dataset.sequence), { headers: { 'X-Requested-With': 'fetch' } });
  if (response.ok) {
    new Messages(place).show(await response.json());
  }
}

export function startSequence() {
  draw();
  onRefresh(draw);
}
