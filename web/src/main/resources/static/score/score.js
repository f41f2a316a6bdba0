// The Score: a mark that goes from beat to beat, notes that are chosen and moved, and the music running under the baton line.
(() => {
  const paper = document.getElementById('paper');
  const sheet = document.getElementById('sheet');
  const strip = document.getElementById('strip');
  if (!sheet) return;
  const item = sheet.dataset.item;
  const zooms = [0, 32, 16, 8, 4, 2, 1];
  const path = (rest) => `/shows/${baton.show}/score/${item}/${rest}`;
  let bars = Number(document.getElementById('bars').value);
  let mark = { tick: 0, staff: 0 };
  let chosen = new Set();
  let wordsWere = '';
  let copied = [];
  let writer = null;
  let busy = Promise.resolve();
  let running = null; // { at, since, paused }

  const music = () => sheet.querySelector('.music');
  const all = (selector) => [...sheet.querySelectorAll(selector)];

  /** What stands on the sheet, read once for each drawing: the beats in their order, the lines, the notes. */
  let drawn = null;
  const read = () => {
    const found = { beats: [], lines: [], byTick: new Map(), depts: (music()?.dataset.depts || '').split(' ').filter(Boolean), notes: all('.note'), left: all('.left-out') };
    found.notes.forEach((n) => { if (!n.querySelector('title')) n.prepend(Object.assign(document.createElementNS('http://www.w3.org/2000/svg', 'title'), { textContent: n.dataset.told })); });
    all('.music .line').forEach((element) => {
      const line = { element, top: Number(element.dataset.top), bottom: Number(element.dataset.bottom), staves: element.dataset.staves.split(' ').map(Number), beats: [] };
      element.querySelectorAll('.measure').forEach((measure) => measure.dataset.beats.split(' ').forEach((pair, i) => {
        const [tick, x] = pair.split(':').map(Number);
        const beat = { tick, x, bar: Number(measure.dataset.bar), beat: i + 1, line, at: found.beats.length };
        line.beats.push(beat);
        found.beats.push(beat);
        found.byTick.set(tick, beat);
      }));
      found.lines.push(line);
    });
    return found;
  };
  const it = () => (drawn ??= read());
  const beats = () => it().beats;
  const beatAt = (tick) => it().byTick.get(tick);
  const depts = () => it().depts;
  const notes = () => it().notes;

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
    if (!old || !now || sources.length !== next.length || old.className !== now.className) sheet.replaceChildren(fresh.content);
    else {
      const standing = [...old.querySelectorAll('.line')];
      lines.forEach((line, i) => { if (next[i] !== sources[i]) standing[i].replaceWith(line); });
      [...old.attributes].forEach((a) => old.removeAttribute(a.name));
      [...now.attributes].forEach((a) => old.setAttribute(a.name, a.value));
      [...sheet.children].forEach((child) => { if (child !== old) child.remove(); });
      now.remove();
      sheet.append(fresh.content);
    }
    sources = next;
  };

  const draw = (html) => {
    patch(html);
    drawn = null;
    shown = { bars: asked, revision: music()?.dataset.revision };
    document.getElementById('told').textContent = music()?.dataset.told || '';
    // What somebody is writing there is theirs.
    if (!document.getElementById('score-words').open) { document.querySelector('#words textarea').value = document.getElementById('score-text').textContent; wordsWere = document.getElementById('score-text').textContent; }
    const left = document.getElementById('left');
    if (left) baton.left(left);
    else if (music()?.dataset.done) baton.say(music().dataset.done);
    const there = new Set(notes().map((n) => n.dataset.cue));
    chosen = new Set([...chosen].filter((c) => there.has(c)));
    show();
  };

  // The server sends only the lines that differ from those of this revision, if they were drawn as wide as what is asked for.
  let shown = {};
  let asked = bars;
  const asking = () => {
    asked = running ? -1 : bars;
    return shown.bars === asked && shown.revision ? { bars: asked, revision: shown.revision } : { bars: asked };
  };
  const load = () => { busy = busy.then(async () => { const r = await fetch(path(`sheet?${new URLSearchParams(asking())}`)); if (r.ok) draw(await r.text()); }); return busy; };

  const change = (rest, fields = {}) => {
    busy = busy.then(async () => {
      const body = { ...asking(), ...fields };
      const response = await baton.post(path(rest), body);
      if (response) { draw(await response.text()); return true; }
      return false;
    });
    return busy;
  };

  sheet.addEventListener('click', (e) => {
    const button = e.target.closest('[data-take-down], [data-forget-down]');
    if (!button) return;
    const one = button.dataset.takeDown || button.dataset.forgetDown;
    const cues = one === 'all' ? [...sheet.querySelectorAll('.one [data-take-down]')].map((b) => b.dataset.takeDown).join() : one;
    change(button.dataset.takeDown ? 'take-down' : 'forget-down', { cues });
  });

  const caret = Object.assign(document.createElement('div'), { className: 'caret' });

  const show = () => {
    caret.remove();
    if (!music()) return;
    notes().forEach((n) => n.classList.toggle('chosen', chosen.has(n.dataset.cue)));
    const beat = beatAt(mark.tick) || beats()[0];
    if (!beat || running) return;
    mark.tick = beat.tick;
    const { staves } = beat.line;
    mark.staff = Math.min(mark.staff, staves.length - 1);
    caret.style.cssText = `left: ${beat.x - 11}px; top: ${staves[0] - 18}px; height: ${staves.at(-1) - staves[0] + 36}px; --staff: ${staves[mark.staff] - staves[0] + 18}px`;
    music().prepend(caret);
    const here = notesHere();
    const out = leftHere();
    const told = [...here, ...out].map((n) => n.dataset.told).join(' + ') || 'nothing';
    const way = here.some((n) => n.dataset.copy) ? ' (Del leaves it out here alone)'
      : out.length ? ' (Del brings it back)'
        : !here.length ? ' (Enter writes a cue here)'
          : chosen.has(here[0].dataset.cue) ? ' (chosen: arrows move it)' : ' (Space chooses it, Enter changes it)';
    strip.innerHTML = '';
    strip.append(`at ${beat.bar}:${beat.beat}, ${(depts()[mark.staff] || '').toUpperCase()}: `, Object.assign(document.createElement('b'), { textContent: told }), way);
  };

  const atMark = (n) => Number(n.dataset.tick) === mark.tick && n.dataset.dept === depts()[mark.staff];
  const notesHere = () => notes().filter(atMark);
  const ownHere = () => notesHere().filter((n) => !n.dataset.copy);
  const leftHere = () => it().left.filter(atMark);

  const seen = () => { if (caret.isConnected) caret.scrollIntoView({ block: 'nearest', inline: 'nearest' }); };

  // ---- writing

  const write = (note) => {
    const beat = beatAt(mark.tick);
    if (!beat || writer) return;
    const box = music().getBoundingClientRect();
    const about = paper.getBoundingClientRect();
    const y = beat.line.staves[mark.staff];
    const dept = depts()[mark.staff];
    writer = Object.assign(document.createElement('div'), { className: 'writer editing' });
    writer.innerHTML = '<input name="text" autocomplete="off" aria-label="What this department gets"><ul role="listbox"></ul>';
    writer.style.left = `${Math.min(beat.x + box.left - about.left + paper.scrollLeft, about.width - 280)}px`;
    writer.style.top = `${y + box.top - about.top + paper.scrollTop + 12}px`;
    paper.append(writer);
    const input = writer.querySelector('input');
    if (note) input.value = note.dataset.told;
    const offer = () => {
      const wanted = input.value.trim().toLowerCase();
      const lists = [...document.querySelectorAll(`#phrasebooks ul[data-dept="${dept}"]`)].filter((u) => !note || u.dataset.device === note.dataset.device);
      const fit = lists.flatMap((u) => [...u.children]).filter((li) => li.textContent.toLowerCase().includes(wanted));
      fit.sort((a, b) => b.textContent.toLowerCase().startsWith(wanted) - a.textContent.toLowerCase().startsWith(wanted));
      const list = writer.querySelector('ul');
      list.replaceChildren(...fit.slice(0, 30).map((li, i) => { const c = li.cloneNode(true); c.setAttribute('role', 'option'); c.setAttribute('aria-selected', i === 0 && wanted !== '' && wanted !== li.textContent.toLowerCase()); return c; }));
    };
    const pick = () => { const li = writer.querySelector('[aria-selected="true"]'); if (!li) return false; input.value = li.textContent + (li.dataset.takes ? ' ' : ''); offer(); return Boolean(li.dataset.takes); };
    const keep = async () => {
      const text = input.value.trim();
      const ok = note ? await change('write', { cue: note.dataset.cue, device: note.dataset.device, text })
        : text ? await change('place', { tick: mark.tick, department: { lx: 'LIGHTS', vd: 'VIDEO', tx: 'WORDS', cm: 'CAMERAS', sd: 'SOUND', ky: 'KEYS' }[dept], text }) : true;
      if (ok) close();
    };
    const close = () => { writer?.remove(); writer = null; paper.focus({ preventScroll: true }); };
    input.addEventListener('input', offer);
    input.addEventListener('keydown', (e) => {
      e.stopPropagation();
      const list = [...writer.querySelectorAll('li')];
      const at = list.findIndex((li) => li.getAttribute('aria-selected') === 'true');
      if (e.key === 'Escape') close();
      else if (e.key === 'Enter') { e.preventDefault(); if (!pick()) keep(); }
      else if (e.key === 'Tab' && at >= 0) { e.preventDefault(); pick(); }
      else if ((e.key === 'ArrowDown' || e.key === 'ArrowUp') && list.length) {
        e.preventDefault();
        const to = Math.max(0, Math.min(list.length - 1, at + (e.key === 'ArrowDown' ? 1 : -1)));
        list.forEach((li, i) => li.setAttribute('aria-selected', i === to));
        list[to].scrollIntoView({ block: 'nearest' });
      }
    });
    writer.querySelector('ul').addEventListener('pointerdown', (e) => { const li = e.target.closest('li'); if (!li) return; e.preventDefault(); input.value = li.textContent + (li.dataset.takes ? ' ' : ''); if (!li.dataset.takes) keep(); });
    input.addEventListener('blur', () => setTimeout(() => { if (writer && !writer.contains(document.activeElement) && !document.querySelector('#notice .notice')) close(); }, 100));
    offer();
    input.focus();
    input.select();
  };

  const section = (bar) => {
    const form = document.getElementById('section');
    const letters = all('.letter').map((l) => l.dataset.letter);
    const known = sheet.querySelector(`.letter[data-bar="${bar}"]`);
    const names = known ? known.querySelector('.sect').textContent.split(' = ') : ['', ''];
    form.bar.value = bar;
    form.was.value = known?.dataset.was || 'none';
    document.getElementById('section-bar').textContent = bar;
    form.letter.value = known?.dataset.letter || 'ABCDEFGHJKLMNOPQRSTUVWXYZ'.split('').find((l) => !letters.includes(l)) || '';
    form.name.value = names[0];
    form.as.value = names[1] || '';
    document.getElementById('score-section').showModal();
    form.letter.select();
  };

  // ---- moving

  const step = (by, bar) => {
    const list = beats();
    if (!beatAt(mark.tick)) return;
    const { at } = beatAt(mark.tick);
    let to = at + by;
    if (bar) { const wanted = list[at].bar + by; const first = list.findIndex((b) => b.bar === wanted); const within = at - list.findIndex((b) => b.bar === list[at].bar); to = first < 0 ? (by > 0 ? list.length - 1 : 0) : Math.min(list.length - 1, first + within); }
    mark.tick = list[Math.max(0, Math.min(list.length - 1, to))].tick;
  };

  const keys = {
    ArrowLeft: (e) => go(-1, e.shiftKey),
    ArrowRight: (e) => go(1, e.shiftKey),
    ArrowUp: () => { mark.staff = Math.max(0, mark.staff - 1); show(); },
    ArrowDown: () => { mark.staff = Math.min(depts().length - 1, mark.staff + 1); show(); },
    Home: () => { mark.tick = beats()[0].tick; show(); seen(); },
    End: () => { mark.tick = beats().at(-1).tick; show(); seen(); },
    Enter: () => write(ownHere()[0]),
    ' ': () => { ownHere().forEach((n) => (chosen.has(n.dataset.cue) ? chosen.delete(n.dataset.cue) : chosen.add(n.dataset.cue))); show(); },
    Delete: () => {
      const gone = chosen.size ? [...chosen] : ownHere().map((n) => n.dataset.cue);
      const copy = [...notesHere(), ...leftHere()].find((n) => n.dataset.copy);
      if (gone.length) { chosen.clear(); change('delete', { cues: gone.join(',') }); } else if (copy) change('except', { letter: copy.dataset.copy, cue: copy.dataset.cue });
    },
    Escape: () => { if (running) stopRunning(); chosen.clear(); show(); },
    l: () => section(beatAt(mark.tick).bar),
    p: () => play(),
    o: () => baton.post(`/shows/${baton.show}/score/pause`),
    v: () => baton.post(`/shows/${baton.show}/score/release`),
    b: () => document.querySelector('[data-opens="score-snippets"]').click(),
    ',': () => nudge(-20),
    '.': () => nudge(20),
    '+': () => zoom(1),
    '=': () => zoom(1),
    '-': () => zoom(-1),
  };
  const nudge = (ms) => { if (running) baton.post(`/shows/${baton.show}/score/nudge`, { ms }).then((ok) => ok && baton.say(`${Math.abs(ms)} ms ${ms < 0 ? 'earlier' : 'later'}.`)); };
  const control = {
    c: () => { copied = chosen.size ? [...chosen] : ownHere().map((n) => n.dataset.cue); baton.say(copied.length === 1 ? 'One cue copied.' : `${copied.length} cues copied.`); },
    x: () => { control.c(); keys.Delete(); },
    v: () => { if (copied.length) change('copy', { cues: copied.join(','), tick: mark.tick }); },
    d: () => {
      const these = chosen.size ? [...chosen] : ownHere().map((n) => n.dataset.cue);
      if (!these.length) return;
      const first = Math.min(...notes().filter((n) => these.includes(n.dataset.cue) && !n.dataset.copy).map((n) => Number(n.dataset.tick)));
      mark.tick = first;
      step(1, true);
      change('copy', { cues: these.join(','), tick: mark.tick });
    },
    a: () => { chosen = new Set(notes().map((n) => n.dataset.cue)); show(); },
  };

  document.addEventListener('step', (e) => {
    // Without a drawing there is nothing to keep in its place.
    if (!music()) return;
    e.preventDefault();
    if (writer) return;
    if (running) baton.say('The music plays. Esc brings the sheet back; then keys write again.');
    else change(e.detail.step);
  });

  const go = (by, bar) => {
    step(by, bar);
    if (chosen.size) change('move', { cues: [...chosen].join(','), [bar ? 'byBars' : 'byBeats']: by }).then(seen);
    else { show(); seen(); }
  };

  document.addEventListener('keydown', (e) => {
    if (baton.typing(e) || writer || e.altKey) return;
    const key = e.key.length === 1 ? e.key.toLowerCase() : e.key;
    const act = e.ctrlKey || e.metaKey ? control[key] : keys[key];
    if (!act || !music()) return;
    if (e.target.closest('button, a') && (key === 'Enter' || key === ' ')) return;
    e.preventDefault();
    // Nobody sees the mark while the music moves, so nothing is changed at it.
    const moves = !e.ctrlKey && !e.metaKey && ['o', 'p', 'v', ',', '.', 'Escape'].includes(key);
    if (running && !moves) { baton.say('The music plays. Esc brings the sheet back; then keys write again.'); return; }
    act(e);
  });

  const zoom = (by) => {
    const to = zooms[Math.max(0, Math.min(zooms.length - 1, zooms.indexOf(bars) + by))];
    bars = to;
    document.getElementById('bars').value = to;
    history.replaceState(null, '', `?item=${item}&bars=${bars}`);
    load().then(seen);
  };
  document.getElementById('bars').addEventListener('change', (e) => { bars = Number(e.target.value); history.replaceState(null, '', `?item=${item}&bars=${bars}`); load().then(seen); paper.focus(); });
  document.getElementById('which').addEventListener('change', (e) => { location.search = `?item=${e.target.value}&bars=${bars}`; });

  // ---- pointer: click a line to place, drag a note to another beat

  const nearest = (e) => {
    const box = music().getBoundingClientRect();
    const x = e.clientX - box.left;
    const y = e.clientY - box.top;
    const line = it().lines.find((l) => y >= l.top - 20 && y <= l.bottom + 20);
    if (!line) return null;
    const near = line.beats.reduce((a, b) => (!a || Math.abs(b.x - x) < Math.abs(a.x - x) ? b : a), null);
    const staff = line.staves.reduce((a, s, i) => (Math.abs(s - y) < Math.abs(line.staves[a] - y) ? i : a), 0);
    return { tick: near.tick, staff, bar: near.bar };
  };
  let drag = null;
  sheet.addEventListener('pointerdown', (e) => {
    if (running || writer || !music()) return;
    const letter = e.target.closest('.letter');
    if (letter) { section(letter.dataset.bar); return; }
    const note = e.target.closest('.note:not(.copy)');
    const copy = e.target.closest('.note.copy, .left-out');
    const at = nearest(e);
    if (copy) { chosen.clear(); mark = { tick: Number(copy.dataset.tick), staff: depts().indexOf(copy.dataset.dept) }; show(); return; }
    if (note) {
      if (!e.shiftKey && !chosen.has(note.dataset.cue)) chosen.clear();
      chosen.add(note.dataset.cue);
      mark = { tick: Number(note.dataset.tick), staff: depts().indexOf(note.dataset.dept) };
      drag = { from: mark.tick, to: mark.tick };
      show();
    } else if (at) {
      chosen.clear();
      mark = at;
      show();
      e.preventDefault();
      paper.focus({ preventScroll: true });
      write(ownHere()[0]);
    }
  });
  sheet.addEventListener('pointermove', (e) => { if (!drag) return; const at = nearest(e); if (at && at.tick !== drag.to) { drag.to = at.tick; mark.tick = at.tick; show(); } });
  document.addEventListener('pointerup', () => {
    if (!drag) return;
    const by = beatAt(drag.to).at - (beatAt(drag.from)?.at ?? beatAt(drag.to).at);
    drag = null;
    if (by) change('move', { cues: [...chosen].join(','), byBeats: by });
  });
  sheet.addEventListener('dblclick', (e) => { const note = e.target.closest('.note'); if (note && !note.dataset.copy) write(note); });

  // ---- words and sections

  // The keys are the score's again at once, not a moment later when the browser says that the dialog is closed.
  const shut = (dialog) => { document.getElementById(dialog).close(); paper.focus({ preventScroll: true }); };

  document.getElementById('words').addEventListener('submit', async (e) => { e.preventDefault(); e.target.classList.add('sent'); if (await change('text', { score: e.target.score.value, was: wordsWere })) shut('score-words'); });
  document.getElementById('section').addEventListener('submit', async (e) => { e.preventDefault(); const f = e.target; f.classList.add('sent'); if (await change('section', { bar: f.bar.value, was: f.was.value, letter: f.letter.value, name: f.elements.name.value, as: f.as.value })) shut('score-section'); });
  for (const name of ['words', 'section']) document.getElementById(`leave-${name}`).addEventListener('click', () => shut(`score-${name}`));

  // ---- snippets

  const snippets = document.getElementById('score-snippets');
  const snippetList = document.getElementById('score-snippets-body');
  const showSnippets = async (response) => {
    if (!response?.ok) return;
    snippetList.innerHTML = await response.text();
    htmx.process(snippetList);
    nameChosen();
  };
  const nameChosen = () => { const place = snippetList.querySelector('[data-chosen]'); if (place) place.textContent = chosen.size === 1 ? 'the chosen cue' : chosen.size ? `the ${chosen.size} chosen cues` : 'the cues that you choose'; };
  document.querySelector('[data-opens="score-snippets"]').addEventListener('click', async () => showSnippets(await fetch(path('snippets')).catch(() => null)));
  snippetList.addEventListener('htmx:afterSwap', nameChosen);
  snippets.addEventListener('submit', async (e) => {
    if (e.target.id !== 'keep-snippet') return;
    e.preventDefault();
    showSnippets(await baton.post(path('snippets'), { name: e.target.elements.name.value, cues: [...chosen].join(',') }));
  });
  snippets.addEventListener('click', async (e) => {
    const row = e.target.closest('[data-drop]')?.closest('tr');
    if (!row) return;
    shut('score-snippets');
    change('drop', { snippet: row.dataset.snippet, tick: mark.tick });
  });

  document.querySelectorAll('dialog').forEach((d) => d.addEventListener('close', () => setTimeout(() => { if (!writer) paper.focus({ preventScroll: true }); })));

  // ---- playing: the baton line stands still, the music moves

  const GUTTER = 92;
  const batonLine = Object.assign(document.createElement('div'), { className: 'baton-line' });
  const gutter = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
  gutter.setAttribute('class', 'music gutter');
  const where = Object.assign(document.createElement('div'), { className: 'where' });
  paper.append(batonLine, gutter, where);
  const play = () => baton.post(path('play'), { tick: mark.tick });
  document.getElementById('play').addEventListener('click', () => play());

  const stopRunning = () => { running = null; paper.classList.remove('running'); load(); };
  const frame = () => {
    if (!running) return;
    requestAnimationFrame(frame);
    const moving = music();
    if (!moving?.classList.contains('long') || !running.scale) return;
    running.times ??= JSON.parse(moving.dataset.beats);
    const ms = running.at + (running.paused ? 0 : (performance.now() - running.since) * running.pace / 1000);
    const table = running.times;
    let low = 0;
    for (let high = table.length - 1; low < high;) { const m = (low + high + 1) >> 1; if (table[m][0] <= ms) low = m; else high = m - 1; }
    const [t, x] = table[low];
    const [t2, x2] = table[Math.min(low + 1, table.length - 1)];
    const at = t2 > t ? x + (x2 - x) * Math.max(0, Math.min(1, (ms - t) / (t2 - t))) : x;
    // Moving what is painted already costs nothing, however long the song is.
    moving.style.transform = `translate3d(${paper.clientWidth * 0.35 - at * running.scale}px, 0, 0)`;
    const beat = beats()[low];
    const words = `${beat ? `bar ${beat.bar}, beat ${beat.beat}` : 'at the end'}${running.vamp && ms >= running.vampFrom ? `, ${running.vamp}` : ''}${running.paused ? ', standing still' : ''}`;
    if (where.textContent !== words) where.textContent = words;
  };

  const told = async (text) => {
    let state = {};
    try { state = JSON.parse(text || '{}'); } catch { return; }
    if (String(state.item) !== item) { if (running) stopRunning(); return; }
    const before = running;
    running = { ...before, at: state.at, since: performance.now(), paused: state.paused, pace: state.pace, vamp: state.vamp, vampFrom: state.vampFrom };
    if (before) return;
    writer?.remove();
    writer = null;
    await load();
    if (!running) return;
    const height = Number(music().dataset.height);
    // As large as the page has room for: it is read from further away than it is written.
    running.scale = Math.max(1, Math.min(1.4, (paper.clientHeight - 60) / height));
    layLong();
    paper.classList.add('running');
    paper.scrollTop = 0;
    gutter.setAttribute('viewBox', `0 0 ${GUTTER} ${height}`);
    gutter.setAttribute('width', GUTTER * running.scale);
    gutter.setAttribute('height', height * running.scale);
    gutter.replaceChildren(...all('.code, .brace').map((n) => n.cloneNode(true)));
    batonLine.style.height = `${(height - 80) * running.scale}px`;
    batonLine.style.top = `${40 + 62 * running.scale}px`;
    strip.innerHTML = '<span class="quiet">It plays: <kbd>O</kbd> pause and go on, <kbd>V</kbd> leave the vamp, <kbd>,</kbd> <kbd>.</kbd> 20 ms earlier or later, <kbd>Esc</kbd> back to the sheet while the music goes on</span>';
    requestAnimationFrame(frame);
  };
  /** Drawn larger, not stretched: the line stays as sharp as it is small. */
  const layLong = () => {
    const line = sheet.querySelector('.music.long .line');
    if (!line || !running?.scale) return;
    line.setAttribute('width', music().dataset.width * running.scale);
    line.setAttribute('height', music().dataset.height * running.scale);
    music().style.width = `${music().dataset.width * running.scale}px`;
    running.times = null;
  };
  new MutationObserver(() => told(document.getElementById('playing').textContent)).observe(document.getElementById('playing'), { childList: true, characterData: true, subtree: true });
  new MutationObserver(() => {
    const now = document.getElementById('revision').textContent;
    if (!music() || now === music().dataset.revision || writer) return;
    load().then(layLong);
  }).observe(document.getElementById('revision'), { childList: true, characterData: true, subtree: true });

  draw(sheet.innerHTML);
  paper.focus({ preventScroll: true });
})();
