<script lang="ts">
  import Plain from '../../components/Plain.svelte';
  import { methodsOf, type OpenApi } from './openapi';

  let document_ = $state.raw<OpenApi | null>(null);
  let failed = $state(false);
  document.title = 'API reference · Lyrandis';

  fetch('/api/openapi.json')
    .then(async (response) => (document_ = (await response.json()) as OpenApi))
    .catch(() => (failed = true));
</script>

<Plain>
  <h1>API reference</h1>
  {#if failed}
    <p class="mt-2 text-red" role="alert">
      Lyrandis does not answer. See that it is still running.
    </p>
  {:else if !document_}
    <p class="mt-2 text-soft" aria-busy="true">Reading the document…</p>
  {:else}
    <p class="text-soft">
      {document_.info.description} Errors are application/problem+json. The document itself:
      <a class="underline" href="/api/openapi.json">/api/openapi.json</a>
    </p>
    {#each methodsOf(document_) as method (method.id)}
      <section class="mt-4 border-t border-line py-4" aria-labelledby={method.id}>
        <h2 id={method.id} class="verb">{method.verb} {method.path}</h2>
        <p>{method.says}</p>
        {#each method.bodies as body (body.title)}
          <h3 class="label mt-3">{body.title}</h3>
          <table class="rows">
            <tbody>
              {#each body.fields as field (field.name)}
                <tr>
                  <td class="w-56 font-semibold">{field.name}{field.required ? '' : '?'}</td>
                  <td class="break-words">{field.type}</td>
                </tr>
              {/each}
            </tbody>
          </table>
        {/each}
      </section>
    {/each}
    <section class="mt-8" aria-labelledby="kinds">
      <h2 id="kinds">Shapes</h2>
      {#each Object.entries(document_.components.schemas) as [name, schema] (name)}
        <details class="border-b border-line py-2">
          <summary class="cursor-pointer font-semibold">{name}</summary>
          {#if schema.description}<p class="text-soft">{schema.description}</p>{/if}
          <pre class="mt-1 overflow-x-auto bg-faint p-3 text-sm" tabindex="-1">{JSON.stringify(
              schema.properties ?? schema,
              null,
              1,
            )}</pre>
        </details>
      {/each}
    </section>
  {/if}
</Plain>

<style>
  .verb {
    font-size: 1.1rem;
    font-weight: 700;
    color: var(--ink);
  }
</style>
