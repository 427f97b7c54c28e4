<script lang="ts">
  import type { Problem } from '../lib/api';

  let {
    problem,
    what = '',
    again,
  }: {
    problem: Problem;
    /** What it is that did not come. */
    what?: string;
    /** Ask for it once more. */
    again: () => unknown;
  } = $props();
</script>

<p class="py-2 text-red" role="alert">
  {what}
  {problem.reason}
  {problem.instruction}
  <button type="button" class="quiet" onclick={() => void again()}>Try again</button>
</p>
