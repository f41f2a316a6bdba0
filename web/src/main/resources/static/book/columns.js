// The columns of the book; those of a department can be folded to their ties.
import { baton } from '../js/baton.js';
import { book } from './sheet.js';

const kept = `folded-${baton.show}`;
const folded = new Set(JSON.parse(localStorage.getItem(kept) || '[]'));

/** The names of the columns that are not folded, from the left. */
export const columns = () => [...book.querySelectorAll('thead [data-column]')]
  .filter((heading) => ![...folded].some((department) => heading.classList.contains(department)))
  .map((heading) => heading.dataset.column);

export const showFolded = () => {
  const grid = book.querySelector('.grid');
  book.querySelectorAll('[data-fold]').forEach((button) => {
    const department = button.dataset.fold;
    grid.classList.toggle(`fold-${department}`, folded.has(department));
    button.setAttribute('aria-pressed', folded.has(department));
  });
};

book.addEventListener('click', (e) => {
  const department = e.target.closest('[data-fold]')?.dataset.fold;
  if (!department) return;
  if (!folded.delete(department)) folded.add(department);
  localStorage.setItem(kept, JSON.stringify([...folded]));
  showFolded();
});
