// The Book by keyboard: one chosen cell, an editor in it, and the strip below that names its bytes.
(() => {
  const book = document.getElementById('book');
  const strip = document.getElementById('strip');
  const path = (rest) => `/shows/${baton.show}/book/${rest}`;
  let chosen = null; // { cue, column }
  let extent = null; // the other corner of a block of cells; null for one cell alone
  let editor = null;
  const kept = `folded-${baton.show}`;
  const folded = new Set(JSON.parse(localStorage.getItem(kept) || '[]'));
  let newest = 0; // the latest revision that was announced

  // ---- choosing

  const rows = () => [...book.querySelectorAll('tr.cue')];
  const cellOf = (at) => at && book.querySelector(`tr.cue[data-cue="${at.cue}"] [data-column="${at.column}"]`);
  const columns = (row) => [...row.querySelectorAll('[data-column]')].filter((c) => ![...folded].some((dept) => c.classList.contains(dept)));

  const at = (cell) => ({ cue: cell.parentElement.dataset.cue, column: cell.dataset.column });

  const choose = (cell, focus = true) => {
    if (!cell) return;
    book.querySelectorAll('.sel').forEach((c) => { c.classList.remove('sel'); c.tabIndex = -1; });
    cell.classList.add('sel');
    cell.tabIndex = 0;
    chosen = at(cell);
    extent = null;
    showBlock();
    if (focus) { cell.focus({ preventScroll: true }); cell.scrollIntoView({ block: 'nearest' }); }
    showStrip();
  };

  const step = (down, right) => {
    const cell = cellOf(chosen);
    if (!cell) { choose(book.querySelector('tr.cue [data-column]')); return; }
    const all = rows();
    const row = all[Math.min(all.length - 1, Math.max(0, all.indexOf(cell.parentElement) + down))];
    const places = columns(row);
    const place = columns(cell.parentElement).indexOf(cell) + right;
    choose(places[Math.min(places.length - 1, Math.max(0, place))]);
  };

  /** The chosen cells as rows of cells; from a number on, the rows are whole cues. */
  const block = () => {
    const from = cellOf(chosen);
    if (!from) return { rows: [], cells: [], whole: false };
    const to = (extent && cellOf(extent)) || from;
    const all = rows();
    const [top, bottom] = [from, to].map((c) => all.indexOf(c.parentElement)).sort((a, b) => a - b);
    const names = columns(from.parentElement).map((c) => c.dataset.column);
    const [left, right] = [from, to].map((c) => names.indexOf(c.dataset.column)).sort((a, b) => a - b);
    const within = all.slice(top, bottom + 1);
    return { rows: within, cells: within.map((r) => columns(r).slice(left, right + 1)), whole: left === 0 };
  };
  const cues = () => block().rows.map((r) => r.dataset.cue);

  const showBlock = () => {
    book.querySelectorAll('.in-block').forEach((c) => c.classList.remove('in-block'));
    if (!extent) return;
    const b = block();
    b.rows.forEach((r, i) => (b.whole ? [...r.children] : b.cells[i]).forEach((c) => c.classList.add('in-block')));
  };

  const stretch = (down, right) => {
    const from = cellOf(extent || chosen);
    const all = rows();
    const row = all[Math.min(all.length - 1, Math.max(0, all.indexOf(from.parentElement) + down))];
    const places = columns(row);
    const place = columns(from.parentElement).indexOf(from) + right;
    const to = places[Math.min(places.length - 1, Math.max(0, place))];
    extent = at(to);
    to.scrollIntoView({ block: 'nearest' });
    showBlock();
  };

  const HINT = '<div class="strip-part">whole cues: more <kbd>Shift down</kbd> copy <kbd>Ctrl C</kbd> paste below <kbd>Ctrl V</kbd> mark and note <kbd>Ctrl M</kbd> delete <kbd>Ctrl Del</kbd></div>';
  let asking;
  let wanted = '';
  const showStrip = (phrase = '') => {
    clearTimeout(asking);
    if (!chosen || !/^\d+$/.test(chosen.column)) { wanted = ''; strip.innerHTML = chosen?.column === 'number' ? HINT : ''; return; }
    const query = `${new URLSearchParams({ cue: chosen.cue, device: chosen.column, phrase })}`;
    wanted = query;
    asking = setTimeout(async () => {
      const response = await fetch(path(`strip?${query}`)).catch(() => null);
      if (response?.ok && wanted === query) strip.innerHTML = await response.text();
    }, 60);
  };

  // ---- changing

  // While the book is being written, keys wait their turn, so that nobody can type faster than it is kept.
  const writing = new Set();
  const waiting = [];
  let told = () => {};
  const change = (rest, values = {}) => new Promise((resolve) => {
    told = resolve;
    // With a source of its own: requests of one source wait for each other, and of those that wait only the last is sent.
    htmx.ajax('POST', path(rest), { source: book, target: '#book', swap: 'innerHTML', values }).catch(() => {});
  });
  document.addEventListener('htmx:beforeRequest', (e) => { if (e.detail.target?.id === 'book') writing.add(e.detail.xhr); });
  for (const end of ['htmx:afterSettle', 'htmx:responseError', 'htmx:sendError', 'htmx:timeout']) {
    document.addEventListener(end, (e) => {
      if (!writing.delete(e.detail.xhr)) return;
      if (end === 'htmx:afterSettle') settle();
      told();
      setTimeout(drain);
    });
  }

  const write = (at, text) => {
    const row = cellOf(at).parentElement;
    return change(`cues/${at.cue}/cell`, { column: at.column, text, version: row.dataset.version });
  };

  /** Several cells in one edit. */
  const writeAll = (cells) => {
    const all = cells.map(({ cell, text: words }) => ({
      cue: Number(cell.parentElement.dataset.cue), version: Number(cell.parentElement.dataset.version), column: cell.dataset.column, text: words,
    }));
    const values = { cells: JSON.stringify(all) };
    return cells.length ? change('cells', values) : Promise.resolve();
  };
  const clearable = (cell) => cell.dataset.column !== 'number';
  const clearBlock = () => writeAll(block().cells.flat().filter(clearable).map((cell) => ({ cell, text: '' })));

  const fillDown = () => {
    const b = block();
    if (b.rows.length > 1) {
      const top = b.cells[0].map(text);
      return writeAll(b.cells.slice(1).flatMap((r) => r.map((cell, i) => ({ cell, text: top[i] }))).filter(({ cell }) => clearable(cell)));
    }
    const words = text(cellOf(chosen));
    const below = rows()[rows().indexOf(b.rows[0]) + 1];
    if (!below || !clearable(cellOf(chosen))) return Promise.resolve();
    const cell = below.querySelector(`[data-column="${chosen.column}"]`);
    choose(cell);
    return writeAll([{ cell, text: words }]);
  };

  const text = (cell) => (cell.querySelector('.said') || (cell.matches('.c') ? null : cell))?.textContent.trim() || '';

  // ---- the editor

  const edit = (start) => {
    const cell = cellOf(chosen);
    if (!cell || editor) return;
    const input = Object.assign(document.createElement('input'), { name: 'cell', autocomplete: 'off', value: start ?? text(cell) });
    input.setAttribute('aria-label', 'Write into the cell');
    cell.classList.add('editing');
    cell.append(input);
    editor = { cell, input, list: null, at: { ...chosen } };
    if (cell.matches('.c')) offer(true);
    input.addEventListener('input', () => offer(false));
    input.addEventListener('blur', () => { if (!writing.size && editor?.input === input && !input.classList.contains('wrong')) keep(0, 0); });
    input.focus();
    if (start === undefined) input.select();
  };

  // The phrases of the machine that fit what stands after the last plus sign.
  const offer = (all) => {
    const { cell, input } = editor;
    editor.list?.remove();
    editor.list = null;
    if (!cell.matches('.c')) return;
    const parts = input.value.split(' + ');
    const wanted = all ? '' : parts[parts.length - 1].trim().toLowerCase();
    const phrases = [...document.querySelectorAll(`#phrasebooks [data-device="${cell.dataset.column}"] li`)];
    const names = phrases.map((li) => li.textContent);
    const takes = (name) => phrases.find((li) => li.textContent === name)?.dataset.takes || '';
    const fit = names.filter((n) => n.toLowerCase().startsWith(wanted)).concat(names.filter((n) => !n.toLowerCase().startsWith(wanted) && n.toLowerCase().includes(wanted)));
    const list = document.createElement('ul');
    list.className = 'choices';
    list.setAttribute('role', 'listbox');
    fit.forEach((name, i) => {
      const li = Object.assign(document.createElement('li'), { textContent: name });
      if (takes(name)) li.dataset.takes = takes(name);
      li.setAttribute('role', 'option');
      li.setAttribute('aria-selected', i === 0 && !all && wanted !== '');
      li.addEventListener('pointerdown', (e) => { e.preventDefault(); if (!pickOpen(li)) { pick(name); keep(0, 0); } });
      list.append(li);
    });
    if (!fit.length) list.innerHTML = `<li class="none">${names.length ? 'no such phrase' : 'its phrasebook is empty; fill it on the page Rig'}</li>`;
    cell.append(list);
    if (list.getBoundingClientRect().bottom > strip.getBoundingClientRect().top) { list.style.top = 'auto'; list.style.bottom = '100%'; }
    editor.list = list;
    preview();
  };

  const picked = () => editor.list?.querySelector('[aria-selected="true"]')?.textContent;
  const preview = () => { const name = picked(); if (name) showStrip(name); };
  const pick = (name) => {
    const parts = editor.input.value.split(' + ');
    parts[parts.length - 1] = name;
    editor.input.value = parts.join(' + ');
  };
  /** A phrase that takes an amount is not done when it is picked: the amount is typed behind the arrow. */
  const pickOpen = (li) => {
    if (!li?.dataset.takes) return false;
    pick(`${li.textContent} → `);
    editor.list?.remove();
    editor.list = null;
    editor.input.placeholder = li.dataset.takes;
    editor.input.focus();
    return true;
  };
  const movePick = (by) => {
    const all = [...editor.list.querySelectorAll('[role=option]')];
    const next = all[Math.min(all.length - 1, Math.max(0, all.findIndex((li) => li.ariaSelected === 'true') + by))];
    all.forEach((li) => li.setAttribute('aria-selected', li === next));
    next?.scrollIntoView({ block: 'nearest' });
    preview();
  };

  const leave = () => {
    if (!editor) return;
    const { cell, input, list } = editor;
    editor = null;
    input.remove();
    list?.remove();
    cell.classList.remove('editing');
    catchUp();
  };

  // What was typed stays in the editor until the book has taken it.
  const keep = async (down, right) => {
    const { cell, input, at } = editor;
    if (input.value.trim() === text(cell)) { leave(); step(down, right); return; }
    await write(at, input.value);
    if (editor?.input === input && document.contains(input)) { input.classList.add('wrong'); editor.list?.remove(); editor.list = null; input.focus(); return; }
    editor = null;
    // Whoever chose another cell while this one was being kept stays there.
    if (chosen.cue !== at.cue || chosen.column !== at.column) return;
    choose(cellOf(at));
    step(down, right);
  };

  // ---- keys

  // Chosen when the button goes down: between down and up the table may be drawn anew, and such a click goes nowhere.
  let again = null;
  book.addEventListener('mousedown', (e) => {
    again = null;
    const cell = e.button === 0 && e.target.closest('tr.cue [data-column]');
    if (!cell || editor?.cell === cell) return;
    if (e.shiftKey && chosen) { e.preventDefault(); extent = at(cell); showBlock(); return; }
    if (chosen && cellOf(chosen) === cell && cell.classList.contains('sel')) again = cell;
    choose(cell);
  });
  book.addEventListener('click', (e) => {
    if (again && again === e.target.closest('tr.cue [data-column]')) edit();
  });

  const editorKeys = (e) => {
    const inList = editor.list && editor.list.querySelector('[role=option]');
    if (e.key === 'Escape') { e.stopPropagation(); leave(); baton.clear(); choose(cellOf(chosen)); }
    else if (e.key === 'Enter' || e.key === 'Tab') {
      e.preventDefault();
      editor.input.classList.remove('wrong');
      if (picked() && editor.input.value.trim() !== '') {
        if (pickOpen(editor.list.querySelector('[aria-selected="true"]'))) return;
        pick(picked());
      }
      keep(e.key === 'Enter' ? (e.shiftKey ? -1 : 1) : 0, e.key === 'Tab' ? (e.shiftKey ? -1 : 1) : 0);
    } else if (inList && e.key === 'ArrowDown') { e.preventDefault(); movePick(1); } else if (inList && e.key === 'ArrowUp') { e.preventDefault(); movePick(-1); }
    else if (inList && e.key === '+' && picked()) { e.preventDefault(); pick(picked()); editor.input.value += ' + '; offer(false); }
  };

  document.addEventListener('keydown', (e) => {
    const open = editor && document.contains(editor.input);
    const inEditor = open && e.target === editor.input;
    // Another cell may already be chosen while what stands in the editor is still being kept: its keys wait too.
    if (!inEditor && (baton.typing(e) || (open && !writing.size && !waiting.length))) return;
    // Also while earlier keys still wait: none may overtake another.
    const clipboard = (e.ctrlKey || e.metaKey) && 'cxv'.includes(e.key.toLowerCase());
    if (clipboard && !inEditor) return;
    if (writing.size || waiting.length) { e.preventDefault(); waiting.push({ key: e.key, ctrlKey: e.ctrlKey, shiftKey: e.shiftKey, altKey: e.altKey }); return; }
    if (editor) editorKeys(e); else bookKeys(e);
  });

  const drain = () => {
    while (!writing.size && waiting.length) {
      const next = waiting.shift();
      if (typeof next === 'function') { next(); continue; }
      const late = { ...next, target: editor?.input || book, preventDefault() {}, stopPropagation() {} };
      if (!editor) bookKeys(late);
      else if (late.key.length === 1 && !late.ctrlKey) { editor.input.setRangeText(late.key, editor.input.selectionStart, editor.input.selectionEnd, 'end'); offer(false); }
      else editorKeys(late);
    }
  };

  const bookKeys = (e) => {
    const key = e.key;
    const row = cellOf(chosen)?.parentElement;
    const moves = { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] };
    const done = () => e.preventDefault();
    if (e.ctrlKey || e.metaKey) {
      if (key === 'z' && !e.shiftKey) { done(); change('undo'); } else if (key === 'y' || (key.toLowerCase() === 'z' && e.shiftKey)) { done(); change('redo'); }
      else if (key === 'd' && row) { done(); change(`cues/${row.dataset.cue}/copy`); }
      else if (key === 'Delete' && row) { done(); removeCues(); }
      else if (key === 'ArrowDown' && row) { done(); fillDown(); }
      else if (key === 'm' && row) { done(); bookPage.openRemarks(); }
    } else if (e.altKey && (key === 'ArrowUp' || key === 'ArrowDown') && row) { done(); change(`cues/${row.dataset.cue}/move`, { step: key === 'ArrowUp' ? -1 : 1 }); }
    else if (e.altKey) { return; }
    else if (key === '/') { done(); document.getElementById('find').focus(); }
    else if (!e.target.closest('#book') && e.target !== document.body) { return; }
    else if (e.target.closest('button, summary, a')) { return; }
    else if (moves[key] && e.shiftKey && row) { done(); stretch(...moves[key]); }
    else if (moves[key]) { done(); step(...moves[key]); }
    else if (key === 'Escape' && extent) { extent = null; showBlock(); }
    else if (!row) { return; }
    else if (key === 'Enter' && e.shiftKey) { done(); fire(); }
    else if (key === 'Enter' || key === 'F2') { done(); edit(); }
    else if (key === 'Delete' || key === 'Backspace') { done(); if (extent) clearBlock(); else if (chosen.column !== 'number') write(chosen, ''); }
    else if (key === 'Insert') { done(); change('cues', { item: row.parentElement.dataset.item, after: row.dataset.cue }); }
    else if (key.length === 1) { done(); edit(key); offer(false); }
  };

  const fire = () => {
    if (!/^\d+$/.test(chosen.column)) return;
    baton.post(path(`cues/${chosen.cue}/fire`), { device: chosen.column }).then((ok) => ok && baton.say('Fired.'));
  };

  const removeCues = (gone = cues()) => {
    const all = rows();
    const places = gone.map((id) => all.findIndex((r) => r.dataset.cue === id));
    const next = all[Math.max(...places) + 1] || all[Math.min(...places) - 1];
    const column = chosen.column;
    return change('cues/delete', { cues: gone.join(',') }).then(() => next && choose(cellOf({ cue: next.dataset.cue, column })));
  };

  // ---- copy and paste: cells as a spreadsheet has them, whole cues with a heading that any book understands

  const ROWS = /^item\tkind\tlength\tcue\t/;
  /** Like keys, what is copied and pasted waits until the book has been written. */
  for (const kind of ['copy', 'cut']) {
    document.addEventListener(kind, (e) => {
      if (!cellOf(chosen) || baton.typing(e)) return;
      e.preventDefault();
      if (writing.size || waiting.length) waiting.push(() => copy(kind === 'cut')); else copy(kind === 'cut', e.clipboardData);
    });
  }
  const copy = async (cut, data) => {
    const b = block();
    const these = cues();
    const whole = b.whole && (extent || chosen.column === 'number');
    let words = b.cells.map((r) => r.map(text).join('\t')).join('\n');
    if (whole) {
      const response = await fetch(path(`rows?cues=${these.join(',')}`)).catch(() => null);
      if (!response?.ok) { baton.tell(null); return; }
      words = await response.text();
    }
    // Only what is at hand at once can go onto the clipboard by the event itself.
    if (data && !whole) data.setData('text/plain', words);
    else if (!(await navigator.clipboard?.writeText(words).then(() => true, () => false))) { baton.say('The browser does not let this page write to the clipboard.'); return; }
    if (cut && whole) await removeCues(these);
    else if (cut) await writeAll(b.cells.flat().filter(clearable).map((cell) => ({ cell, text: '' })));
    if (whole) baton.say(these.length === 1 ? 'One cue copied.' : `${these.length} cues copied.`);
  };
  document.addEventListener('paste', (e) => {
    if (!cellOf(chosen) || baton.typing(e)) return;
    e.preventDefault();
    const words = e.clipboardData.getData('text/plain');
    if (writing.size || waiting.length) waiting.push(() => paste(words)); else paste(words);
  });
  const paste = (words) => {
    const cell = cellOf(chosen);
    if (ROWS.test(words)) { change('rows', { item: cell.closest('tbody').dataset.item, after: chosen.cue, text: words }); return; }
    const lines = words.replace(/\r?\n$/, '').split(/\r?\n/).map((line) => line.split('\t').map((w) => w.trim()));
    const one = lines.length === 1 && lines[0].length === 1;
    if (one && !extent) { write(chosen, lines[0][0]); return; }
    // One cell's words go into the whole block; a block of words goes right and down from the first cell.
    const b = block();
    if (one) { writeAll(b.cells.flat().map((c) => ({ cell: c, text: lines[0][0] }))); return; }
    const all = rows();
    const top = all.indexOf(b.rows[0]);
    const left = columns(b.rows[0]).indexOf(b.cells[0][0]);
    writeAll(lines.flatMap((line, i) => line.map((w, k) => ({ cell: all[top + i] && columns(all[top + i])[left + k], text: w }))).filter(({ cell: c }) => c));
  };

  // ---- columns: a department's can be folded to their ties

  const fold = () => {
    const grid = book.querySelector('.grid');
    if (!grid) return;
    book.querySelectorAll('[data-fold]').forEach((b) => {
      grid.classList.toggle(`fold-${b.dataset.fold}`, folded.has(b.dataset.fold));
      b.setAttribute('aria-pressed', folded.has(b.dataset.fold));
    });
  };
  book.addEventListener('click', (e) => {
    const dept = e.target.closest('[data-fold]')?.dataset.fold;
    if (!dept) return;
    if (!folded.delete(dept)) folded.add(dept);
    localStorage.setItem(kept, JSON.stringify([...folded]));
    fold();
  });

  // ---- two writers at one cue

  document.getElementById('notice').addEventListener('click', (e) => {
    const told = e.target.closest('[data-mine]');
    if (!told || !e.target.closest('button')) return;
    const { cue, column, version, mine } = told.dataset;
    editor = null;
    baton.clear();
    if (e.target.closest('[data-mine-wins]')) change(`cues/${cue}/cell`, { column, text: mine, version });
    else refresh();
  });

  // ---- find, undo, keeping up to date

  document.getElementById('find').addEventListener('keydown', (e) => {
    if (e.key === 'Escape') { e.target.value = ''; e.target.blur(); }
    if (e.key !== 'Enter') return;
    const wanted = e.target.value.trim().toLowerCase();
    if (!wanted) return;
    const all = rows();
    const from = all.findIndex((r) => r.dataset.cue === chosen?.cue) + 1;
    const order = all.slice(from).concat(all.slice(0, from));
    const hit = all.find((r) => r.dataset.number === wanted) || order.find((r) => r.textContent.toLowerCase().includes(wanted));
    if (hit) choose(hit.querySelector(`[data-column="${chosen?.column || 'what'}"]`), true);
    else baton.say(`Nothing in the book says “${e.target.value.trim()}”.`);
  });
  document.addEventListener('click', (e) => { if (e.target.closest('[data-undo]')) change('undo'); });

  // Somebody else wrote: the table is drawn anew, but never under an open editor, and not before an own change is kept.
  const catchUp = () => {
    const shown = Number(book.querySelector('.grid')?.dataset.revision || 0);
    if (newest > shown && !editor && !writing.size) refresh();
  };
  const refresh = async () => {
    const response = await fetch(path('table')).catch(() => null);
    if (!response?.ok) return;
    const html = await response.text();
    if (editor || writing.size) return;
    book.innerHTML = html;
    htmx.process(book);
    settle();
  };
  document.addEventListener('live', (e) => {
    if (e.detail.topic !== 'book') return;
    newest = Number(e.detail.data);
    catchUp();
  });

  const settle = () => {
    if (editor && !document.contains(editor.input)) editor = null;
    const grid = book.querySelector('.grid');
    fold();
    document.getElementById('count').textContent = grid?.dataset.count || '';
    document.querySelector('[data-undo]').disabled = !grid?.dataset.undoable;
    document.querySelector('[data-undo]').title = grid?.dataset.undoable || '';
    const left = document.getElementById('left');
    if (left) baton.left(left);
    else if (grid?.dataset.done) baton.say(grid.dataset.done);
    if (grid?.dataset.added) { choose(cellOf({ cue: grid.dataset.added, column: 'what' })); grid.removeAttribute('data-added'); }
    else if (!editor && chosen) {
      const corner = extent;
      choose(cellOf(chosen), document.activeElement === document.body);
      if (corner && cellOf(corner)) { extent = corner; showBlock(); }
    }
    catchUp();
  };
  // What the dialogs of lists.js need.
  window.bookPage = { cues, rows, change, path, row: () => cellOf(chosen)?.parentElement, several: () => extent !== null };
  settle();
})();
