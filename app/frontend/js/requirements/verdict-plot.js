// Draws what a verdict rests on, on the requirement's page.
import { onRefresh } from '../frame/live.js';
import { plot } from '../runs/plot.js';

async function draw() {
  const places = document.querySelectorAll('[data-verdict-plot]');
  if (!places.length) {
    return;
  }
  const response = await fetch(places[0].dataset.verdictPlot, { headers: { 'X-Requested-With': 'fetch' } });
  if (!response.ok) {
    places.forEach((place) => {
      place.hidden = true;
    });
    return;
  }
  const pictures = await response.json();
  places.forEach((place) => {
    const picture = pictures.find(
      (each) => String(each.run) === place.dataset.run && each.subject === place.dataset.subject,
    );
    place.hidden = !picture?.plot.traces.length;
    if (!place.hidden) {
      plot(place, picture.plot.times, picture.plot.traces, picture.plot.lines);
    }
  });
}

export function startVerdictPlots() {
  draw();
  onRefresh(draw);
}
