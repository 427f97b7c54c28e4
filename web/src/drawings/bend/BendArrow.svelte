<script lang="ts">
  import type { ShotDrawing } from '../../lib/api';
  import { arrowPath, asideAt, type Stage } from './view.svelte';

  let {
    drawing,
    aside,
    frame,
    stage,
    small = false,
  }: {
    drawing: ShotDrawing;
    aside: number[][];
    frame: number;
    stage: Stage;
    small?: boolean;
  } = $props();

  const nock = $derived(drawing.nock_mm[frame] ?? 0);
  const length = $derived(drawing.stations_mm.at(-1) ?? 0);
  const place = (s: number): [number, number] => [
    stage.x(nock + s),
    stage.y(asideAt(drawing, aside, frame, s)),
  ];
  const feather = $derived.by(() => {
    const from = place(drawing.fletching_from_mm);
    const to = place(drawing.fletching_from_mm + drawing.fletching_length_mm);
    const half = small ? 3.5 : 7;
    const lean = (to[0] - from[0]) * 0.22;
    return [
      from,
      [from[0] + lean, from[1] - half],
      [to[0] - lean * 0.4, to[1] - half],
      to,
      [to[0] - lean * 0.4, to[1] + half],
      [from[0] + lean, from[1] + half],
    ]
      .map(([x, y]) => `${x?.toFixed(1)},${y?.toFixed(1)}`)
      .join(' ');
  });
  const tip = $derived(place(length));
</script>

<polygon points={feather} fill="var(--green)" opacity="0.75" />
<path
  d={arrowPath(drawing, aside, frame, stage)}
  fill="none"
  stroke="var(--wood-line)"
  stroke-width={small ? 2 : 3.2}
  stroke-linejoin="round"
/>
<circle cx={tip[0]} cy={tip[1]} r={small ? 2.5 : 4} fill="var(--ink)" />
