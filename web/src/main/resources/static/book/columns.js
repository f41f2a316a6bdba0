// The columns of the book; those of a department can be folded to their ties. Where the window is narrow, as many departments are open as
// have room, until somebody chooses others.
import { baton } from '../js/baton.js';
import { book } from './sheet.js';

const narrow = window.matchMedia('(max-width: 900px)');
const ROOM_OF_A_COLUMN = 88;
const ROOM_FOLDED = 26;
const ROOM_BEFORE = 286; // cue, starts, what happens
let folded = new Set();

const kept = () => `folded-${narrow.matches ? 'narrow-' : ''}${baton.show}`;
const headings = () => [...book.querySelectorAll('thead [data-column]')].filter((h) => h.querySelector('[data-fold]'));
const department = (heading) => heading.querySelector('[data-fold]').dataset.fold;

/** The departments that have no room. */
const withoutRoom = () => {
  const all = headings().map(department);
  let room = book.clientWidth - ROOM_BEFORE - all.length * ROOM_FOLDED;
  return [...new Set(all)].filter((one) => {
    const wanted = all.filter((d) => d === one).length * (ROOM_OF_A_COLUMN - ROOM_FOLDED);
    if (wanted > room) return true;
    room -= wanted;
    return false;
  });
};

const read = () => {
  const said = localStorage.getItem(kept());
  folded = new Set(said || !narrow.matches ? JSON.parse(said || '[]') : withoutRoom());
};

/** The names of the columns that are not folded, from the left. */
export const columns = () => [...book.querySelectorAll('thead [data-column]')]
  .filter((heading) => ![...folded].some((one) => heading.classList.contains(one)))
  .map((heading) => heading.dataset.column);

export const showFolded = () => {
  const grid = book.querySelector('.grid');
  grid?.classList.toggle('many', headings().length > 8);
  book.querySelectorAll('[data-fold]').forEach((button) => {
    grid.classList.toggle(`fold-${button.dataset.fold}`, folded.has(button.dataset.fold));
    button.setAttribute('aria-pressed', folded.has(button.dataset.fold));
  });
};

book.addEventListener('click', (e) => {
  const one = e.target.closest('[data-fold]')?.dataset.fold;
  if (!one) return;
  if (!folded.delete(one)) folded.add(one);
  localStorage.setItem(kept(), JSON.stringify([...folded]));
  showFolded();
});

narrow.addEventListener('change', () => { read(); showFolded(); });
read();
