// The columns of the book; those of a department can be folded to their ties. Where the window is narrow, as many departments are open as
// have room, until somebody chooses others.
import { baton } from '../js/baton.js';
import { book } from './sheet.js';

const narrow = window.matchMedia('(max-width: 900px)');
const ROOM_OF_A_COLUMN = 88;
const ROOM_FOLDED = 26;
const ROOM_BEFORE = 286; // cue, starts, what happens
// Where machines are many: what stands before their columns, and a column by what is said in it, as in book.css.
const ROOM_OF_MANY = 326;
const LEAST = { unused: 56, plain: 68, wordy: 88, longest: 106 };
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
export const columns = () =>
  [...book.querySelectorAll('thead [data-column]')]
    .filter((heading) => ![...folded].some((one) => heading.classList.contains(one)))
    .map((heading) => heading.dataset.column);

/** How wide the table is at least, so that no word must stand letter by letter: beyond that the paper is pushed sideways. */
const least = () =>
  headings().reduce((sum, heading) => {
    if (folded.has(department(heading))) return sum + ROOM_FOLDED;
    return sum + (LEAST[['unused', 'wordy', 'longest'].find((c) => heading.classList.contains(c))] || LEAST.plain);
  }, ROOM_OF_MANY);

export const showFolded = () => {
  const grid = book.querySelector('.grid');
  const many = headings().length > 8;
  grid?.classList.toggle('many', many);
  if (grid) grid.style.minWidth = many ? `${least()}px` : '';
  book.querySelectorAll('[data-fold]').forEach((button) => {
    grid.classList.toggle(`fold-${button.dataset.fold}`, folded.has(button.dataset.fold));
    button.setAttribute('aria-pressed', String(folded.has(button.dataset.fold)));
  });
};

book.addEventListener('click', (e) => {
  const one = e.target.closest('[data-fold]')?.dataset.fold;
  if (!one) return;
  if (!folded.delete(one)) folded.add(one);
  localStorage.setItem(kept(), JSON.stringify([...folded]));
  showFolded();
});

narrow.addEventListener('change', () => {
  read();
  showFolded();
});
read();
