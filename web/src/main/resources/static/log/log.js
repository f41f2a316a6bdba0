// New lines are fetched when the wire says so, with the filters as they stand; pause holds the page still, not the log.
(() => {
  const rows = document.getElementById('rows');
  const filters = document.getElementById('filters');
  const pause = document.getElementById('pause');
  const MOST_ROWS = 1000;
  let paused = false;
  let fetching = false;
  let again = false;

  const fetchNew = async () => {
    if (paused) return;
    if (fetching) { again = true; return; }
    fetching = true;
    const after = rows.querySelector('tr')?.dataset.number || 0;
    const query = new URLSearchParams(new FormData(filters));
    query.set('after', after);
    const response = await fetch(`/shows/${baton.show}/log/rows?${query}`).catch(() => null);
    if (response?.ok) {
      const html = await response.text();
      const newest = rows.querySelector('tr')?.dataset.number || 0;
      if (newest === after) rows.insertAdjacentHTML('afterbegin', html);
      while (rows.children.length > MOST_ROWS) rows.lastElementChild.remove();
    }
    fetching = false;
    if (again) { again = false; fetchNew(); }
  };

  const toggle = () => {
    paused = !paused;
    pause.setAttribute('aria-pressed', paused);
    pause.querySelector('span').textContent = paused ? 'paused; go on' : 'pause';
    fetchNew();
  };

  rows.addEventListener('sse:log', fetchNew);
  document.addEventListener('htmx:sseMessage', (e) => { if (e.detail.type === 'log') fetchNew(); });
  pause.addEventListener('click', toggle);
  document.addEventListener('keydown', (e) => { if (e.key.toLowerCase() === 'p' && !baton.typing(e)) toggle(); });
})();
