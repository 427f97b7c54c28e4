<script lang="ts">
  import Plain from '../../components/Plain.svelte';

  document.title = 'Not found · Lyrandis';
</script>

<Plain>
  <h1>There is nothing at this address</h1>
  <p class="mt-4"><a class="act" href="/">All rigs</a></p>
</Plain>
