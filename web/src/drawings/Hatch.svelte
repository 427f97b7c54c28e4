<script lang="ts">
  let {
    id,
    stroke = 'var(--red)',
    every = 7,
  }: {
    id: string;
    stroke?: string;
    /** From line to line. */
    every?: number;
  } = $props();
</script>

<defs>
  <pattern
    {id}
    width={every}
    height={every}
    patternUnits="userSpaceOnUse"
    patternTransform="rotate(45)"
  >
    <line x1="0" y1="0" x2="0" y2={every} {stroke} stroke-width="1.1" />
  </pattern>
</defs>
