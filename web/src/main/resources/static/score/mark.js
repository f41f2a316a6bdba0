// The mark that goes from beat to beat, and the notes that are chosen.
import { beatAt, beats, change, depts, leftOut, music, notes, state } from './sheet.js';

const strip = document.getElementById('strip');
const caret = Object.assign(document.createElement('div'), { className: 'caret' });

export const mark = { tick: 0, staff: 0 };
/** The ids of the cues whose notes are chosen. */
export const chosen = new Set();

const atMark = (n) => Number(n.dataset.tick) === mark.tick && n.dataset.dept === depts()[mark.staff];
export const notesHere = () => notes().filter(atMark);
export const ownHere = () => notesHere().filter((n) => !n.dataset.copy);
export const leftHere = () => leftOut().filter(atMark);
/** The cues of what is chosen, or of what stands at the mark. */
export const these = () => (chosen.size ? [...chosen] : ownHere().map((n) => n.dataset.cue));
export const choose = (cue) => {
  if (!chosen.delete(cue)) chosen.add(cue);
};

export const show = () => {
  caret.remove();
  if (!music()) return;
  notes().forEach((n) => n.classList.toggle('chosen', chosen.has(n.dataset.cue)));
  const beat = beatAt(mark.tick) || beats()[0];
  if (!beat || state.running) return;
  mark.tick = beat.tick;
  const { staves } = beat.line;
  mark.staff = Math.min(mark.staff, staves.length - 1);
  caret.style.cssText = `left: ${beat.x - 11}px; top: ${staves[0] - 18}px; height: ${staves.at(-1) - staves[0] + 36}px; --staff: ${staves[mark.staff] - staves[0] + 18}px`;
  music().prepend(caret);
  const here = notesHere();
  const out = leftHere();
  const told = [...here, ...out].map((n) => n.dataset.told).join(' + ') || 'nothing';
  strip.replaceChildren(
    `at ${beat.bar}:${beat.beat}, ${(depts()[mark.staff] || '').toUpperCase()}: `,
    Object.assign(document.createElement('b'), { textContent: told }),
    way(here, out),
  );
};

/** What can be done with what stands at the mark. */
const way = (here, out) => {
  if (here.some((n) => n.dataset.copy)) return ' (Del leaves it out here alone)';
  if (out.length) return ' (Del brings it back)';
  if (!here.length) return ' (Enter writes a cue here)';
  return chosen.has(here[0].dataset.cue) ? ' (chosen: arrows move it)' : ' (Space chooses it, Enter changes it)';
};

export const put = (tick, staff) => {
  Object.assign(mark, { tick, staff });
  show();
};
export const seen = () => {
  if (caret.isConnected) caret.scrollIntoView({ block: 'nearest', inline: 'nearest' });
};

/** Beat by beat, or bar by bar to the same beat of it. */
export const step = (by, bar) => {
  const list = beats();
  if (!beatAt(mark.tick)) return;
  const { at } = beatAt(mark.tick);
  let to = at + by;
  if (bar) {
    const wanted = list[at].bar + by;
    const first = list.findIndex((b) => b.bar === wanted);
    const within = at - list.findIndex((b) => b.bar === list[at].bar);
    const end = by > 0 ? list.length - 1 : 0;
    to = first < 0 ? end : Math.min(list.length - 1, first + within);
  }
  mark.tick = list[Math.max(0, Math.min(list.length - 1, to))].tick;
};

/** Chosen cues go along. */
export const go = (by, bar) => {
  step(by, bar);
  if (chosen.size) change('move', { cues: [...chosen].join(','), [bar ? 'byBars' : 'byBeats']: by }).then(seen);
  else {
    show();
    seen();
  }
};

document.addEventListener('drawn', () => {
  const there = new Set(notes().map((n) => n.dataset.cue));
  [...chosen].filter((c) => !there.has(c)).forEach((c) => chosen.delete(c));
  show();
});
