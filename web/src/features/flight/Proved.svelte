<script lang="ts">
  import WhenReady from '../../components/WhenReady.svelte';
  import FlightHead from './FlightHead.svelte';
</script>

<WhenReady key="flight">
  {#snippet children(_, stage, page)}
    <FlightHead {stage} {page} about="How far to trust a word on the Evidence page." />
  {/snippet}
</WhenReady>
