<script lang="ts">
  let { rows }: { rows: readonly (readonly string[])[] } = $props();
</script>

<table>
  <tbody>
    {#each rows as row, index (index)}
      <tr>
        {#each row as cell, at (at)}
          <td colspan={row.length === 1 ? 2 : 1}>{cell}</td>
        {/each}
      </tr>
    {/each}
  </tbody>
</table>

<style>
  table {
    border-collapse: collapse;
    border: 1px solid var(--line);
    background: var(--paper);
    font-size: 0.8rem;
    color: var(--soft);
  }
  td {
    border: 1px solid var(--line);
    padding: 0.15rem 0.5rem;
  }
  tr:first-child td {
    color: var(--ink);
    font-weight: 600;
  }
</style>
