// What this page has of the book: a list of all cues, and of its leaves those drawn that are near the window. A leaf is
// drawn as it comes near and folded again when it is far away, so that a book of any length is as quick as a short one.
import { baton } from '../js/baton.js';
import { Idiomorph } from '../lib/idiomorph/idiomorph.esm.js';

export const book = document.getElementById('book');
const scroller = book.closest('.body');
export const path = (rest) => `/shows/${baton.show}/book/${rest}`;

// ---- all cues, drawn or not

let order = [];
let places = new Map();

const grid = () => book.querySelector('.grid');
const leaves = () => [...(grid()?.tBodies || [])];
const isDrawn = (leaf) => 'drawn' in leaf.dataset;

const readList = () => {
  order = leaves().flatMap((leaf) =>
    (leaf.dataset.cues || '')
      .split(' ')
      .filter(Boolean)
      .map((entry) => {
        const [id, version, number] = entry.split(':');
        return { id, version: Number(version), number, item: leaf.dataset.item, leaf: leaf.id };
      }),
  );
  places = new Map(order.map((cue, place) => [cue.id, place]));
};

/** All cues in the book's order: id, version, number and item of each. */
export const cues = () => order;
/** Where a cue stands, from 0; below 0 where it is gone. */
export const place = (id) => places.get(`${id}`) ?? -1;
export const cue = (id) => order[place(id)];

/** A cue's row, and a cell of it, where it is drawn. */
export const row = (id) => book.querySelector(`tr.cue[data-cue="${id}"]`);
export const cellAt = (at) => at && row(at.cue)?.querySelector(`[data-column="${at.column}"]`);
export const placeOf = (cell) => ({ cue: cell.parentElement.dataset.cue, column: cell.dataset.column });
/** What a drawn cell says. */
export const words = (cell) =>
  (cell.querySelector('.said') || (cell.matches('.c') ? null : cell))?.textContent.trim() || '';

// ---- leaves: drawn near the window, folded far from it

const wanted = new Map(); // by the leaf's id, those who wait for it
let drawing = false;

/** Draws the leaf of a cue; done when it is there, or when it is clear that it will not be. */
export const draw = (leaf) =>
  new Promise((done) => {
    wanted.set(leaf, [...(wanted.get(leaf) || []), done]);
    if (!drawing) drawWanted();
  });

/** Leaves as the server draws them; null when it does not answer in time. */
const sentLeaves = async (ids) => {
  try {
    const response = await fetch(path(`leaves?which=${ids.map((id) => id.slice(5))}`), {
      signal: AbortSignal.timeout(5000),
    });
    const content = document.createElement('template');
    content.innerHTML = response.ok ? await response.text() : '';
    return content.content.querySelector('table');
  } catch {
    return null;
  }
};

const drawWanted = async () => {
  drawing = true;
  while (wanted.size) {
    const ids = [...wanted.keys()].slice(-40);
    let table = await sentLeaves(ids);
    // What was drawn before an edit that this page shows already would be old: asked for once more, it is not.
    if (table && Number(table.dataset.revision) < revision()) table = await sentLeaves(ids);
    if (table) put([...table.tBodies]);
    else setTimeout(drawInReach, 2000);
    ids.forEach((id) => {
      wanted.get(id)?.forEach((done) => done());
      wanted.delete(id);
    });
  }
  drawing = false;
};

const put = (sent) => {
  for (const leaf of sent) {
    const here = document.getElementById(leaf.id);
    if (here && !isDrawn(here)) {
      near.unobserve(here);
      inReach.delete(here);
      here.replaceWith(leaf);
      htmx.process(leaf);
    }
  }
  watchLeaves();
  readList();
  document.dispatchEvent(new CustomEvent('drawn'));
};

const fold = (leaf) => {
  const rows = [...leaf.querySelectorAll('tr.cue, tr.again')];
  const inUse = leaf.contains(document.activeElement) || leaf.querySelector('.sel, .editing, details[open]');
  if (!rows.length || inUse) return;
  const away = document.createElement('tr');
  away.className = 'away';
  const space = away.insertCell();
  space.colSpan = rows[0].cells.length;
  const bottom = rows[rows.length - 1].getBoundingClientRect().bottom;
  space.height = String(Math.round(bottom - rows[0].getBoundingClientRect().top));
  rows.forEach((r) => r.remove());
  leaf.append(away);
  delete leaf.dataset.drawn;
};

const MOST_ROWS = 100; // drawn ones, before those that are far away are folded again
const inReach = new Set();
let tidying;
const tidy = () =>
  leaves()
    .filter((leaf) => isDrawn(leaf) && !inReach.has(leaf))
    .forEach((leaf) => {
      if (book.querySelectorAll('tr.cue').length > MOST_ROWS) fold(leaf);
    });
const drawInReach = () =>
  inReach.forEach((leaf) => {
    if (leaf.isConnected && !isDrawn(leaf)) draw(leaf.id);
  });
const near = new IntersectionObserver(
  (seen) => {
    for (const { target, isIntersecting } of seen) {
      if (!isIntersecting || !target.isConnected) inReach.delete(target);
      else {
        inReach.add(target);
        if (!isDrawn(target)) draw(target.id);
      }
    }
    clearTimeout(tidying);
    tidying = setTimeout(tidy, 1500);
  },
  { root: scroller, rootMargin: '800px 0px' },
);
const watchLeaves = () => leaves().forEach((leaf) => near.observe(leaf));

// ---- exchange

export const revision = () => Number(grid()?.dataset.revision || 0);
/** What the server need not send again. */
const has = () =>
  grid()
    ? {
        seen: revision(),
        drawn: leaves()
          .filter(isDrawn)
          .map((leaf) => leaf.id.slice(5))
          .join(),
      }
    : {};

// What is named without content is the same and stays, and so does a form that somebody has open.
const stays = (old, sent) => sent.dataset?.same !== undefined || (old.matches?.('details[open]') ?? false);

/** Leaves that did not change are not sent: their names stand for them. */
const nameTheSame = (table) => {
  const sent = new Map([...table.tBodies].map((leaf) => [leaf.id, leaf]));
  table.append(
    ...table.dataset.leaves.split(' ').map((id) => {
      const leaf = sent.get(`leaf-${id}`) || document.createElement('tbody');
      if (!leaf.id) {
        leaf.id = `leaf-${id}`;
        leaf.dataset.same = '';
      }
      return leaf;
    }),
  );
};

const exchange = (content) => {
  content.filter((node) => node.matches?.('table')).forEach(nameTheSame);
  Idiomorph.morph(book, content, {
    morphStyle: 'innerHTML',
    callbacks: { beforeNodeMorphed: (old, sent) => !stays(old, sent) },
  });
  watchLeaves();
  readList();
  // Should something be missing that the server took for known, the book is drawn from the beginning.
  if (book.querySelector('[data-same]')) fetched({}).then((all) => all && exchange(all));
};

htmx.defineExtension('leaves', {
  isInlineSwap: (style) => style === 'leaves',
  handleSwap: (style, target, content) => {
    if (style !== 'leaves') return false;
    exchange([...content.childNodes]);
    return [target];
  },
});
document.addEventListener('htmx:configRequest', (e) => {
  if (e.detail.target === book) Object.assign(e.detail.parameters, has());
});
document.addEventListener('htmx:beforeSwap', (e) => {
  // What is written in an item's form has been taken; other open forms stay.
  if (e.detail.target === book && e.detail.shouldSwap)
    e.detail.requestConfig.elt.closest('details')?.removeAttribute('open');
});
// An item's form is fetched when it is opened, so that it says what is so now, and never what was so.
book.addEventListener(
  'toggle',
  (e) => {
    if (!e.target.open) e.target.querySelector('.item-form')?.replaceChildren();
    const item = e.target.open && e.target.closest('tbody').dataset.item;
    const form = item && e.target.querySelector('.item-form');
    if (form)
      htmx
        .ajax('GET', path(`items/${item}/form`), { target: form, swap: 'innerHTML' })
        .then(() => form.scrollIntoView({ block: 'nearest' }));
  },
  true,
);

const fetched = async (query) => {
  const response = await fetch(path(`table?${new URLSearchParams(query)}`)).catch(() => null);
  if (!response?.ok) return null;
  const content = document.createElement('template');
  content.innerHTML = await response.text();
  return [...content.content.childNodes];
};

/** Fetches what somebody else changed; it is taken only if nothing was begun here meanwhile. */
export const refresh = async (mayStill) => {
  const content = await fetched(has());
  if (!content || !mayStill()) return false;
  exchange(content);
  htmx.process(book);
  return true;
};

export const about = () => grid()?.dataset || {};
watchLeaves();
readList();
