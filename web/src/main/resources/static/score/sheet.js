// What stands on the sheet of the Score: the drawing as the server sends it, read once, and every change of it.
import { baton } from '../js/baton.js';

export const paper = document.getElementById('paper');
/** Empty where no item is shown. */
export const sheet = document.getElementById('sheet') || document.createElement('div');
export const { item } = sheet.dataset;
export const path = (rest) => `/shows/${baton.show}/score/${item}/${rest}`;

/** How many bars a line has, and the music that plays: null while it stands still. */
export const state = { bars: Number(document.getElementById('bars')?.value), running: null };

export const music = () => sheet.querySelector('.music');
export const all = (selector) => [...sheet.querySelectorAll(selector)];

// ---- what is drawn, read once for each drawing: the beats in their order, the lines, the notes

let drawn = null;
const read = () => {
  const found = {
    beats: [],
    lines: [],
    byTick: new Map(),
    depts: (music()?.dataset.depts || '').split(' ').filter(Boolean),
    notes: all('.note'),
    left: all('.left-out'),
  };
  found.notes.forEach((n) => {
    if (!n.querySelector('title'))
      n.prepend(
        Object.assign(document.createElementNS('http://www.w3.org/2000/svg', 'title'), { textContent: n.dataset.told }),
      );
  });
  all('.music .line').forEach((element) => {
    const line = {
      element,
      top: Number(element.dataset.top),
      bottom: Number(element.dataset.bottom),
      staves: element.dataset.staves.split(' ').map(Number),
      beats: [],
    };
    element.querySelectorAll('.measure').forEach((measure) =>
      measure.dataset.beats.split(' ').forEach((one) => {
        const [tick, x, ...place] = one.split(':');
        const beat = {
          tick: Number(tick),
          x: Number(x),
          bar: Number(measure.dataset.bar),
          beat: place.join(':'),
          line,
          at: found.beats.length,
        };
        line.beats.push(beat);
        found.beats.push(beat);
        found.byTick.set(beat.tick, beat);
      }),
    );
    found.lines.push(line);
  });
  return found;
};
const it = () => (drawn ??= read());
export const beats = () => it().beats;
export const beatAt = (tick) => it().byTick.get(tick);
export const depts = () => it().depts;
export const notes = () => it().notes;
export const leftOut = () => it().left;

/** The tick, staff and bar nearest to where the pointer is; null beside the lines. */
export const nearest = (e) => {
  const box = music().getBoundingClientRect();
  const x = e.clientX - box.left;
  const y = e.clientY - box.top;
  const line = it().lines.find((l) => y >= l.top - 20 && y <= l.bottom + 20);
  if (!line) return null;
  const near = line.beats.reduce((a, b) => (!a || Math.abs(b.x - x) < Math.abs(a.x - x) ? b : a), null);
  const staff = line.staves.reduce((a, s, i) => (Math.abs(s - y) < Math.abs(line.staves[a] - y) ? i : a), 0);
  return { tick: near.tick, staff, bar: near.bar };
};

// ---- drawing

let sources = [];
/** Only the lines that changed are exchanged, so that a long song is not laid out anew for one note. */
const patch = (html) => {
  const fresh = document.createElement('template');
  fresh.innerHTML = html;
  const old = music();
  const now = fresh.content.querySelector('.music');
  const lines = now ? [...now.children] : [];
  const next = lines.map((l, i) => (l.hasAttribute('data-same') ? sources[i] : l.outerHTML));
  if (!old || !now || sources.length !== next.length || old.className !== now.className)
    sheet.replaceChildren(fresh.content);
  else {
    const standing = [...old.querySelectorAll('.line')];
    lines.forEach((line, i) => {
      if (next[i] !== sources[i]) standing[i].replaceWith(line);
    });
    [...old.attributes].forEach((a) => old.removeAttribute(a.name));
    [...now.attributes].forEach((a) => old.setAttribute(a.name, a.value));
    [...sheet.children].forEach((child) => {
      if (child !== old) child.remove();
    });
    now.remove();
    sheet.append(fresh.content);
  }
  sources = next;
};

// The server sends only the lines that differ from those of this revision, if they were drawn as wide as what is asked for.
let shown = {};
let asked = { bars: state.bars, width: 1216 };
// The paper is as wide as its window has room for, in steps that a scroll bar more or less does not change.
const room = () => Math.min(2400, Math.max(600, Math.floor(paper.clientWidth / 8) * 8));
const asking = () => {
  asked = { bars: state.running ? -1 : state.bars, width: room() };
  const same = shown.bars === asked.bars && shown.width === asked.width && shown.revision;
  return same ? { ...asked, revision: shown.revision } : asked;
};

export const draw = (html) => {
  patch(html);
  drawn = null;
  shown = { ...asked, revision: music()?.dataset.revision };
  document.getElementById('told').textContent = music()?.dataset.told || '';
  const left = document.getElementById('left');
  if (left) baton.left(left);
  else if (music()?.dataset.done) baton.say(music().dataset.done);
  document.dispatchEvent(new CustomEvent('drawn'));
};

// ---- what is asked of the server, one thing after the other

/** @type {Promise<any>} */
let busy = Promise.resolve();
export const load = () => {
  busy = busy.then(async () => {
    const response = await baton.ask(path(`sheet?${new URLSearchParams(/** @type {any} */ (asking()))}`));
    if (response) draw(await response.text());
  });
  return busy;
};

let resized;
window.addEventListener('resize', () => {
  clearTimeout(resized);
  resized = setTimeout(() => {
    if (item && !state.running && music() && room() !== shown.width) load();
  }, 200);
});

/** Answers whether it was taken. */
export const change = (rest, fields = {}) => {
  busy = busy.then(async () => {
    const response = await baton.post(path(rest), { ...asking(), ...fields });
    if (response) draw(await response.text());
    return response !== null;
  });
  return busy;
};
