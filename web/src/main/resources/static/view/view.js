// A department's view: what stands in it comes drawn; how far off it is, is counted here, on the beat, also while the line is gone.
import '../js/awake.js';
import { baton } from '../js/baton.js';
import { here, last, until, whenMoved } from '../js/music.js';

const SHOWN_BARS = 6;
const LARGE_BARS = 2;
const FRESH_MS = 1500;
const LATE_MS = 2000;

const text = (parent, selector, words) => {
  const element = parent?.querySelector(selector);
  if (element && element.textContent !== words) element.textContent = words;
};

/** The beats of the last bars before a place, those that are over dim: it empties on the beat. */
const beats = (place, now, at) => {
  const row = place.querySelector('[data-beats]');
  if (!row) return;
  const due = last(now.table.beats, at, (b) => b[0]);
  const shown = due ? now.table.beats.filter((b) => b[0] < at && b[1] >= due[1] - SHOWN_BARS) : [];
  const far = !shown.length || shown[0][0] > now.ms;
  while (row.children.length > (far ? 0 : shown.length)) row.lastChild.remove();
  if (far) return;
  while (row.children.length < shown.length) row.append(document.createElement('i'));
  shown.forEach((b, i) => {
    const gone = shown[i + 1] ? shown[i + 1][0] <= now.ms : at <= now.ms;
    row.children[i].className = `${b[2] === 1 ? 'one' : ''} ${gone ? 'gone-by' : ''}`;
  });
};

const counted = (place, now, at) => {
  const { bars, seconds } = until(now, at);
  place.classList.toggle('soon', bars <= LARGE_BARS);
  // The last bar is counted in beats.
  const left = bars > 1 ? bars : now.table.beats.filter((b) => b[0] > now.ms && b[0] <= at).length;
  const unit = bars > 1 ? 'bar' : 'beat';
  text(place, '[data-count]', String(left));
  text(place, '[data-unit]', left === 1 ? unit : `${unit}s`);
  text(place, '[data-seconds]', `${seconds.toFixed(1)} s`);
  beats(place, now, at);
};

const count = () => {
  const now = here();
  const clock = baton.now();
  document.querySelectorAll('[data-at-ms]').forEach((place) => {
    const at = Number(/** @type {HTMLElement} */ (place).dataset.atMs);
    const due = Number(/** @type {HTMLElement} */ (place).dataset.due);
    if (at >= 0 && now?.table.beats.length) counted(place, now, at);
    else if (due > 0) text(place, '[data-seconds]', `${Math.max(0, (due - clock) / 1000).toFixed(1)} s`);
  });
  const beat = now && last(now.table.beats, now.ms, (b) => b[0]);
  text(document, '[data-bar]', beat ? `${beat[1]}:${beat[2]}` : '');
  document.querySelectorAll('[data-given]').forEach((e) => {
    e.classList.toggle('fresh', clock - Number(/** @type {HTMLElement} */ (e).dataset.given) < FRESH_MS);
  });
  band(now);
};

// How often a vamp goes round, nobody knows.
const uncounted = (place) => {
  place.classList.remove('soon');
  for (const counts of ['[data-count]', '[data-seconds]', '[data-beats]']) text(place, counts, '');
  text(place, '[data-unit]', 'when the vamp is left');
};

const nextSection = (next, now) => {
  const coming = now.table.sections.find((s) => s.at > now.ms);
  const at = coming?.at || now.table.end;
  text(next, '[data-next-name]', coming?.name || 'the end');
  if (now.vampTo > 0 && at >= now.vampTo) uncounted(next);
  else counted(next, now, at);
};

const band = (now) => {
  const next = document.querySelector('[data-next-section]');
  if (!next) return;
  text(document, '[data-section]', (now && last(now.table.sections, now.ms, (s) => s.at)?.name) || '');
  text(document, '[data-tempo]', now && now.pace !== 1000 ? `tempo ${now.pace / 10} %` : '');
  if (now) nextSection(next, now);
  else text(next, '[data-next-name]', 'nothing plays');
};

// ---- what is older than it looks

let lostAt = 0;
document.addEventListener('line', (/** @type {CustomEvent} */ e) => {
  if (e.detail.there) lostAt = 0;
  else lostAt ||= Date.now();
});
const late = /** @type {HTMLElement} */ (document.querySelector('.late'));
const tellLate = () => {
  if (!late) return;
  const silent = lostAt ? Date.now() - lostAt : 0;
  late.hidden = silent < LATE_MS;
  text(late, '[data-late]', `${Math.round(silent / 1000)} s`);
};

whenMoved(count);
document.addEventListener('live', count);

// Looked at often, and on each beat as it comes.
const LOOK_MS = 50;
const wait = () => {
  const now = here();
  const next = now?.table.beats.find((b) => b[0] > now.ms);
  const comes = next && !now.paused ? ((next[0] - now.ms) * 1000) / now.pace : LOOK_MS;
  return Math.max(1, Math.min(LOOK_MS, comes));
};
const look = () => {
  // A drawing that fails does not end it.
  setTimeout(look, wait());
  count();
  tellLate();
};
look();
