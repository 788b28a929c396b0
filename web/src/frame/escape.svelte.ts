/**
 * Esc closes what is open beside, wherever the focus stands; a dialog closes itself first.
 *
 * @param close gives whether there was something to close
 */
export function onEscape(close: () => boolean) {
  $effect(() => {
    function key(e: KeyboardEvent) {
      if (e.key !== 'Escape' || e.defaultPrevented || document.querySelector('dialog[open]'))
        return;
      if (close()) e.preventDefault();
    }
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  });
}
