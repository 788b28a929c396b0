(() => {
  const kept = localStorage.getItem('theme');
  const dark = kept ? kept === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.classList.toggle('dark', dark);
})();
