<script lang="ts">
  import { api } from '../lib/api';
  import { keep, kept } from '../lib/kept';

  // what is typed is kept over loading the page anew: by itself once a minute, else by hand
  const NAME = `reloaded.${location.pathname}`;
  const AGAIN_MS = 60_000;

  function again() {
    location.reload();
  }

  $effect(() => {
    const timer = setInterval(() => {
      if (Date.now() - (kept<number>(NAME) ?? 0) < AGAIN_MS) return;
      void api.rigs().then(({ data }) => {
        if (!data) return;
        keep(NAME, Date.now());
        again();
      });
    }, 2000);
    return () => clearInterval(timer);
  });
</script>

<h1>This page did not come</h1>
<p class="mt-2">
  Lyrandis does not answer, or was renewed meanwhile. The page is loaded as soon as it answers; what
  you typed is kept.
</p>
<p class="mt-4"><button class="act" onclick={again}>Load it anew</button></p>
