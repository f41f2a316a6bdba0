// Copy and paste: cells as a spreadsheet has them, whole cues with a heading that any book understands.
import { baton } from '../js/baton.js';
import { cellAt, cue, cues, path, place, words } from './sheet.js';
import { at, block, chosenCell, chosenCue, goTo, several } from './choice.js';
import { columns } from './columns.js';
import { busy, change, later } from './writing.js';
import { editing, editorHas, insert, write } from './cell.js';

const ROWS = /^item\tkind\tlength\tcue\t/;

/** What a cell says, where it is drawn: two people at two cells of one cue do not disagree. */
const stands = (to) => {
  const cell = cellAt(to);
  return cell ? words(cell) : null;
};

/** Several cells in one edit: of each its cue, its column and what it shall say; and whether that came from elsewhere. */
const writeAll = (cells, pasted = false) =>
  cells.length
    ? change('cells', {
        cells: JSON.stringify(
          cells.map((c) => ({ ...c, cue: Number(c.cue), version: cue(c.cue).version, was: stands(c) })),
        ),
        pasted,
      })
    : Promise.resolve();
const clearable = (column) => column !== 'number';
const allOf = (b, said) =>
  b.cues.flatMap(({ id }) => b.columns.filter(clearable).map((column) => ({ cue: id, column, text: said(column) })));

export const clearBlock = () => writeAll(allOf(block(), () => ''));

/** What the chosen cells say, as lines of words; at once where they are all drawn. */
const said = (b) => {
  const cells = b.cues.map(({ id }) => b.columns.map((column) => cellAt({ cue: id, column })));
  if (cells.flat().every(Boolean)) return cells.map((line) => line.map(words));
  return ask('cells', b).then((text) => text?.split('\n').map((line) => line.split('\t')));
};

const ask = async (what, b) => {
  const query = new URLSearchParams({ from: b.cues[0].id, to: b.cues.at(-1).id, columns: b.columns.join() });
  const response = await baton.ask(path(`${what}?${query}`));
  return response && response.text();
};

export const fillDown = async () => {
  const b = block();
  const lines = await said({ ...b, cues: b.cues.slice(0, 1) });
  if (!lines) return;
  const [top] = lines;
  const text = (column) => top[b.columns.indexOf(column)];
  if (b.cues.length > 1) {
    writeAll(allOf({ ...b, cues: b.cues.slice(1) }, text));
    return;
  }
  const below = cues()[place(b.cues[0].id) + 1];
  if (!below || !clearable(at().column)) return;
  goTo({ cue: below.id, column: at().column });
  writeAll([{ cue: below.id, column: b.columns[0], text: top[0] }]);
};

export const removeCues = (gone = block().cues) => {
  const next = cues()[place(gone.at(-1).id) + 1] || cues()[place(gone[0].id) - 1];
  const { column } = at();
  return change('cues/delete', { cues: gone.map((c) => c.id).join(',') }).then(
    (done) => done && next && goTo({ cue: next.id, column }),
  );
};

// Like keys, what is copied and pasted waits until the book has been written; so it does in an editor whose words are being kept.
const elsewhere = (e) => !chosenCell() || (baton.typing(e) && !(editorHas(e.target) && busy()));
for (const kind of ['copy', 'cut']) {
  document.addEventListener(kind, (e) => {
    if (elsewhere(e)) return;
    e.preventDefault();
    let now = e.clipboardData;
    later(() => editing() || copy(kind === 'cut', now));
    now = null;
  });
}

const copy = async (cut, data) => {
  const b = block();
  const whole = b.whole && (several() || at().column === 'number');
  const lines = whole ? ask('rows', b) : said(b);
  const atHand = Array.isArray(lines);
  const text = whole ? await lines : (atHand ? lines : await lines)?.map((line) => line.join('\t')).join('\n');
  if (text === null || text === undefined) return;
  // Only what is at hand at once can go onto the clipboard by the event itself.
  if (data && atHand) data.setData('text/plain', text);
  else if (
    !(await navigator.clipboard?.writeText(text).then(
      () => true,
      () => false,
    ))
  ) {
    baton.say('The browser does not let this page write to the clipboard.');
    return;
  }
  if (cut && whole) await removeCues(b.cues);
  else if (cut) await writeAll(allOf(b, () => ''));
  if (whole) baton.say(b.cues.length === 1 ? 'One cue copied.' : `${b.cues.length} cues copied.`);
};

document.addEventListener('paste', (e) => {
  if (elsewhere(e)) return;
  e.preventDefault();
  const text = e.clipboardData.getData('text/plain');
  later(() => (editing() ? insert(text) : paste(text)));
});

const paste = (text) => {
  if (!chosenCue()) return;
  if (ROWS.test(text)) {
    change('rows', { item: chosenCue().item, after: at().cue, text });
    return;
  }
  const lines = text
    .replace(/\r?\n$/, '')
    .split(/\r?\n/)
    .map((line) => line.split('\t').map((w) => w.trim()));
  const one = lines.length === 1 && lines[0].length === 1;
  if (one && !several()) {
    write(at(), lines[0][0]);
    return;
  }
  // One cell's words go into the whole block; a block of words goes right and down from the first cell.
  const b = block();
  if (one) {
    writeAll(b.cues.flatMap(({ id }) => b.columns.map((column) => ({ cue: id, column, text: lines[0][0] }))));
    return;
  }
  const below = cues().slice(place(b.cues[0].id));
  const right = columns().slice(columns().indexOf(b.columns[0]));
  writeAll(
    lines
      .slice(0, below.length)
      .flatMap((line, i) =>
        line.slice(0, right.length).map((w, k) => ({ cue: below[i].id, column: right[k], text: w })),
      ),
    true,
  );
};
