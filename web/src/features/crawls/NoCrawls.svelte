<script lang="ts">
  import CrawlForm from './CrawlForm.svelte';
</script>

<header class="mb-3">
  <h1>Crawls</h1>
  <p class="text-soft">
    Nobody walks the string of this rig yet. One crawl as shot begins the table; the rig gives the
    rest, wide and honest.
  </p>
</header>
<div class="max-w-2xl"><CrawlForm notation="mm" unit="m" /></div>
