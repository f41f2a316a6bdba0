// The music running: the baton line stands still, the sheet moves under it.
import { baton } from '../js/baton.js';
import { all, beats, item, load, music, paper, path, sheet, state } from './sheet.js';
import { mark } from './mark.js';
import { close, writing } from './writer.js';

const GUTTER = 92;
const strip = document.getElementById('strip');
const batonLine = Object.assign(document.createElement('div'), { className: 'baton-line' });
const gutter = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
gutter.setAttribute('class', 'music gutter');
const where = Object.assign(document.createElement('div'), { className: 'where' });
paper.append(batonLine, gutter, where);

export const play = () => baton.post(path('play'), { tick: mark.tick });
export const stopRunning = () => {
  state.running = null;
  paper.classList.remove('running');
  load();
};
const ofShow = (what, fields) => baton.post(`/shows/${baton.show}/score/${what}`, fields);
export const pause = () => ofShow('pause');
export const release = () => ofShow('release');
export const nudge = (ms) => {
  if (state.running)
    ofShow('nudge', { ms }).then((ok) => ok && baton.say(`${Math.abs(ms)} ms ${ms < 0 ? 'earlier' : 'later'}.`));
};
document.getElementById('play').addEventListener('click', () => play());

/** The place in a table of moments: the last that is not later. */
const lastAt = (table, ms) => {
  let low = 0;
  for (let high = table.length - 1; low < high;) {
    const middle = (low + high + 1) >> 1;
    if (table[middle][0] <= ms) low = middle;
    else high = middle - 1;
  }
  return low;
};

const frame = () => {
  const { running } = state;
  if (!running) return;
  requestAnimationFrame(frame);
  const moving = music();
  if (!moving?.classList.contains('long') || !running.scale) return;
  running.times ??= JSON.parse(moving.dataset.beats);
  const ms = running.at + (running.paused ? 0 : ((baton.now() - running.when) * running.pace) / 1000);
  const low = lastAt(running.times, ms);
  const [t, x] = running.times[low];
  const [t2, x2] = running.times[Math.min(low + 1, running.times.length - 1)];
  const at = t2 > t ? x + (x2 - x) * Math.max(0, Math.min(1, (ms - t) / (t2 - t))) : x;
  // Moving what is painted already costs nothing, however long the song is.
  moving.style.transform = `translate3d(${paper.clientWidth * 0.35 - at * running.scale}px, 0, 0)`;
  const beat = beats()[low];
  const words = `${beat ? `bar ${beat.bar}, beat ${beat.beat}` : 'at the end'}${running.vamp && ms >= running.vampFrom ? `, ${running.vamp}` : ''}${running.paused ? ', standing still' : ''}`;
  if (where.textContent !== words) where.textContent = words;
};

/** Drawn larger, not stretched: the line stays as sharp as it is small. */
const layLong = () => {
  const line = sheet.querySelector('.music.long .line');
  if (!line || !state.running?.scale) return;
  line.setAttribute('width', String(Number(music().dataset.width) * state.running.scale));
  line.setAttribute('height', String(Number(music().dataset.height) * state.running.scale));
  music().style.width = `${Number(music().dataset.width) * state.running.scale}px`;
  state.running.times = null;
};

const begin = () => {
  const { running } = state;
  const height = Number(music().dataset.height);
  // As large as the page has room for: it is read from further away than it is written.
  running.scale = Math.max(1, Math.min(1.4, (paper.clientHeight - 60) / height));
  layLong();
  paper.classList.add('running');
  paper.scrollTop = 0;
  gutter.setAttribute('viewBox', `0 0 ${GUTTER} ${height}`);
  gutter.setAttribute('width', String(GUTTER * running.scale));
  gutter.setAttribute('height', String(height * running.scale));
  gutter.replaceChildren(...all('.code, .brace').map((n) => n.cloneNode(true)));
  batonLine.style.height = `${(height - 80) * running.scale}px`;
  batonLine.style.top = `${40 + 62 * running.scale}px`;
  strip.innerHTML =
    '<span class="quiet">It plays: <key-of act="pause"></key-of> pause and go on, <key-of act="release"></key-of> leave the vamp, <key-of act="sooner"></key-of> <key-of act="later"></key-of> 20 ms earlier or later, <key-of act="none"></key-of> back to the sheet while the music goes on</span>';
  requestAnimationFrame(frame);
};

const told = async (text) => {
  let now = {};
  try {
    now = JSON.parse(text || '{}');
  } catch {
    return;
  }
  if (String(now.item) !== item) {
    if (state.running) stopRunning();
    return;
  }
  const before = state.running;
  state.running = {
    ...before,
    at: now.at,
    when: now.when,
    paused: now.paused,
    pace: now.pace,
    vamp: now.vamp,
    vampFrom: now.vampFrom,
  };
  if (before) return;
  close();
  await load();
  if (state.running) begin();
};

const follows = (id, act) => {
  const element = document.getElementById(id);
  new MutationObserver(() => act(element.textContent)).observe(element, {
    childList: true,
    characterData: true,
    subtree: true,
  });
};
follows('playing', told);
follows('revision', (now) => {
  if (music() && now !== music().dataset.revision && !writing()) load().then(layLong);
});
