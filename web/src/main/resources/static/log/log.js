// New lines are fetched when the wire says so, with the filters as they stand; pause holds the page still, not the log.
(() => {
  const rows = document.getElementById('rows');
  const filters = document.getElementById('filters');
  const pause = document.getElementById('pause');
  const MOST_ROWS = 1000;
  let paused = false;
  let fetching = false;
  let again = false;
  let kept = 0;

  const fetchNew = async () => {
    if (paused) return;
    if (fetching) { again = true; return; }
    fetching = true;
    const after = rows.querySelector('tr[data-number]')?.dataset.number || 0;
    const query = new URLSearchParams(new FormData(filters));
    query.set('after', after);
    const response = await fetch(`/shows/${baton.show}/log/rows?${query}`).catch(() => null);
    if (response?.ok) {
      const html = await response.text();
      const newest = rows.querySelector('tr[data-number]')?.dataset.number || 0;
      if (newest === after) rows.insertAdjacentHTML('afterbegin', html);
      while (rows.children.length > Math.max(MOST_ROWS, kept)) rows.lastElementChild.remove();
    }
    fetching = false;
    if (again) { again = false; fetchNew(); }
  };

  // Older lines come from the database, behind the last one that stands here.
  rows.addEventListener('click', async (e) => {
    const button = e.target.closest('[data-older]');
    if (!button) return;
    const numbers = rows.querySelectorAll('tr[data-number]');
    const query = new URLSearchParams(new FormData(filters));
    query.set('before', numbers[numbers.length - 1].dataset.number);
    const response = await fetch(`/shows/${baton.show}/log/rows?${query}`).catch(() => null);
    if (!response?.ok) { baton.tell(null); return; }
    button.closest('tr').remove();
    rows.insertAdjacentHTML('beforeend', await response.text());
    kept = rows.children.length;
  });

  const toggle = () => {
    paused = !paused;
    pause.setAttribute('aria-pressed', paused);
    pause.querySelector('span').textContent = paused ? 'paused; go on' : 'pause';
    fetchNew();
  };

  document.addEventListener('live', (e) => { if (e.detail.topic === 'log') fetchNew(); });
  pause.addEventListener('click', toggle);
  document.addEventListener('keydown', (e) => { if (e.key.toLowerCase() === 'p' && !baton.typing(e)) toggle(); });
})();
