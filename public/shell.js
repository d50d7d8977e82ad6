/** Fills the still frame that stands until the app does: the day on Today, nothing on pages that are no part of it. */
(() => {
  const shell = document.getElementById('shell');
  const path = window.location.pathname;
  if (/^\/(stand|session|print|report|week\/print)/.test(path)) shell.remove();
  else if (path === '/') {
    const day = new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long' });
    shell.querySelector('p').textContent = day.format(new Date());
    shell.querySelector('main').hidden = false;
  }
})();
