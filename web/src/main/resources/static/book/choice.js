// The chosen cell, the block of cells or cues from there, and the strip below that names the bytes of a cell.
import { book, cellAt, cue, cues, draw, path, place, placeOf, row } from './sheet.js';
import { columns } from './columns.js';
import { during } from './writing.js';

const strip = document.getElementById('strip');
let chosen = null; // { cue, column }
let corner = null; // the other corner of a block; null for one cell alone

export const at = () => chosen;
export const several = () => corner !== null;
export const chosenCell = () => cellAt(chosen);
/** The chosen cue, if it is there. */
export const chosenCue = () => chosen && cue(chosen.cue);

const mark = (cell) => {
  book.querySelectorAll('.sel').forEach((c) => {
    c.classList.remove('sel');
    c.tabIndex = -1;
  });
  cell.classList.add('sel');
  cell.tabIndex = 0;
};

export const choose = (cell, focus = true) => {
  if (!cell) return;
  mark(cell);
  chosen = placeOf(cell);
  corner = null;
  showBlock();
  if (focus) {
    cell.focus({ preventScroll: true });
    cell.scrollIntoView({ block: 'nearest' });
  }
  showStrip();
};

/** Chooses a cell that may not be drawn yet. */
export const goTo = (to) => {
  if (row(to.cue)) choose(cellAt(to));
  else if (cue(to.cue)) during(draw(cue(to.cue).leaf)).then(() => choose(cellAt(to)));
};

const within = (number, length) => Math.min(length - 1, Math.max(0, number));
const beside = (from, down, right) => ({
  cue: cues()[within(place(from.cue) + down, cues().length)].id,
  column: columns()[within(columns().indexOf(from.column) + right, columns().length)],
});

export const step = (down, right) => {
  if (chosenCue()) goTo(beside(chosen, down, right));
  else choose(book.querySelector('tr.cue [data-column]'));
};

/** The next cell, over the end of a row into the next row; answers whether there is one. */
export const stepOn = (by) => {
  if (!chosenCue()) return false;
  const along = columns().indexOf(chosen.column) + by;
  const inRow = along >= 0 && along < columns().length;
  const next = cues()[place(chosen.cue) + (inRow ? 0 : by)];
  if (!next) return false;
  goTo({ cue: next.id, column: inRow ? columns()[along] : columns().at(by > 0 ? 0 : -1) });
  return true;
};

// ---- blocks

/** The chosen cells: their cues and columns; from a number on, they are whole cues. */
export const block = () => {
  if (!chosenCue()) return { cues: [], columns: [], whole: false };
  const to = corner && cue(corner.cue) ? corner : chosen;
  const [top, bottom] = [chosen, to].map((end) => place(end.cue)).sort((a, b) => a - b);
  const [left, right] = [chosen, to].map((end) => columns().indexOf(end.column)).sort((a, b) => a - b);
  return { cues: cues().slice(top, bottom + 1), columns: columns().slice(left, right + 1), whole: left === 0 };
};

export const stretchTo = (to) => {
  corner = to;
  cellAt(to)?.scrollIntoView({ block: 'nearest' });
  showBlock();
};
export const stretch = (down, right) => {
  const to = beside(corner || chosen, down, right);
  if (row(to.cue)) stretchTo(to);
  else during(draw(cue(to.cue).leaf)).then(() => stretchTo(to));
};
export const single = () => {
  corner = null;
  showBlock();
};

const showBlock = () => {
  book.querySelectorAll('.in-block').forEach((c) => c.classList.remove('in-block'));
  if (!corner) return;
  const b = block();
  const ids = new Set(b.cues.map((c) => c.id));
  book.querySelectorAll('tr.cue').forEach((r) => {
    if (ids.has(r.dataset.cue))
      [...r.cells]
        .filter((c) => b.whole || b.columns.includes(c.dataset.column))
        .forEach((c) => c.classList.add('in-block'));
  });
};

/** Shows again what was chosen, after the book was drawn anew. */
export const chooseAgain = () => {
  const other = corner;
  const cell = chosenCell();
  if (!cell) {
    if (chosenCue()) goTo(chosen);
    return;
  }
  choose(cell, document.activeElement === document.body);
  if (other && cue(other.cue)) {
    corner = other;
    showBlock();
  }
};
document.addEventListener('drawn', showBlock);

// ---- the strip

const HINT =
  '<div class="strip-part">whole cues: more <key-of act="stretch"></key-of> copy <key-of act="copy"></key-of> paste below <key-of act="paste"></key-of> mark and note <key-of act="remarks"></key-of> delete <key-of act="remove"></key-of></div>';
let asking;
let wanted = '';

/** @param phrase one that is about to be picked; what stands in the cell without */
export const showStrip = (phrase = '') => {
  clearTimeout(asking);
  if (!chosen || !/^\d+$/.test(chosen.column)) {
    wanted = '';
    strip.innerHTML = chosen?.column === 'number' ? HINT : '';
    return;
  }
  const query = `${new URLSearchParams({ cue: chosen.cue, device: chosen.column, phrase })}`;
  wanted = query;
  asking = setTimeout(async () => {
    const response = await fetch(path(`strip?${query}`)).catch(() => null);
    if (response?.ok && wanted === query) strip.innerHTML = await response.text();
  }, 60);
};
