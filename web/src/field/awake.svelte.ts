/** The screen stays on while the helper is looked at. */
export function stayAwake(): { readonly refused: boolean } {
  let refused = $state(false);

  async function hold() {
    if (document.visibilityState !== 'visible') return;
    try {
      if (!navigator.wakeLock) throw new Error('none');
      await navigator.wakeLock.request('screen');
      refused = false;
    } catch {
      refused = true;
    }
  }
  // the lock falls when the page is left, and is asked for again when it comes back
  $effect(() => {
    void hold();
    document.addEventListener('visibilitychange', hold);
    return () => document.removeEventListener('visibilitychange', hold);
  });
  return {
    get refused() {
      return refused;
    },
  };
}
