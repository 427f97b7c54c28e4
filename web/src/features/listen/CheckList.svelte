<script lang="ts">
  import type { PageOf } from '../../lib/api';
  import { tell } from '../../lib/preferences.svelte';
  import { wanted } from '../../lib/wanted';

  let { checks }: { checks: PageOf<'listen'>['checks'] } = $props();

  const STATES: Record<(typeof checks)[number]['state'], string> = {
    heard: 'heard',
    gone: 'heard before, gone',
    not_heard: 'not heard',
    cannot: 'cannot tell yet',
    not_needed: 'not the cause',
    may_help: 'may help',
  };
</script>

<section aria-labelledby="checks-title" class="mt-5" {@attach wanted('checks')} tabindex="-1">
  <h2 id="checks-title">In the order to look</h2>
  <table class="rows mt-1">
    <thead>
      <tr>
        <th class="n"><span class="sr-only">Number</span></th>
        <th>Look at</th>
        <th>The sound shows</th>
        <th>State</th>
        <th class="right">From the entries</th>
      </tr>
    </thead>
    <tbody>
      {#each checks as check, n (check.key)}
        <tr>
          <td class="n text-soft">{n + 1}</td>
          <th scope="row">
            <span class="state-box {check.state}" aria-hidden="true"></span>{check.name}
          </th>
          <td>
            {tell(check.shows)}
            {#if check.state === 'heard' || check.state === 'may_help'}
              <span class="block text-sm font-semibold">{check.do}</span>
            {/if}
          </td>
          <td
            class="whitespace-nowrap"
            class:text-amber={check.state === 'heard'}
            class:font-semibold={check.state === 'heard'}
            class:text-soft={check.state === 'cannot'}>{STATES[check.state]}</td
          >
          <td class="right text-soft">{check.from_entries ? tell(check.from_entries) : '–'}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</section>

<style>
  section:focus {
    outline: none;
  }
  tbody th {
    font-weight: 600;
    font-size: 1rem;
    color: var(--ink);
    white-space: nowrap;
  }
  .n {
    width: 1.4rem;
  }
  .right {
    text-align: right;
    padding-right: 0;
  }
  .state-box {
    display: inline-block;
    width: 0.7rem;
    height: 0.7rem;
    margin-right: 0.5rem;
    border: 1.5px solid var(--ink);
  }
  .state-box.heard {
    background: var(--amber);
    border-color: var(--amber);
  }
  .state-box.gone {
    background: linear-gradient(135deg, var(--amber) 50%, transparent 50%);
    border-color: var(--amber);
  }
  .state-box.cannot {
    height: 0;
    border: 0;
    border-top: 2px solid var(--soft);
    vertical-align: middle;
  }
  .state-box.may_help {
    border-style: dashed;
  }
  @media (max-width: 720px) {
    thead {
      display: none;
    }
    tr {
      display: grid;
      grid-template-columns: 1.4rem minmax(0, 1fr) auto;
      border-bottom: 1px solid var(--line);
      padding: 0.35rem 0;
    }
    td,
    tbody th {
      border: 0;
      padding: 0 0.5rem 0 0;
      white-space: normal;
    }
    td:nth-child(3) {
      grid-column: 2 / -1;
      grid-row: 2;
    }
    td:nth-child(5) {
      display: none;
    }
  }
</style>
