<script lang="ts">
  import { figure } from '../../lib/preferences.svelte';
  import { mm } from '../../lib/units';
  import type { Butt } from './butt.svelte';
  import { placeOn } from '../dragged';

  let { butt }: { butt: Butt } = $props();

  let svg = $state<SVGSVGElement>();
  let dragging: number | null = null;
  /** Where a press began, and the hit it may move: nothing is put on before it is let go. */
  let pressed: { px: number; py: number; right: number; up: number; near: number } | null = null;
  const MOVED = 5;
  const SIZE = 300;
  const FOOT = 20;
  const scale = $derived(SIZE / (2 * butt.reach));
  const x = $derived((right: number) => SIZE / 2 + right * scale);
  const y = $derived((up: number) => SIZE / 2 - up * scale);
  const R = 10;
  /** A round distance that the face just shows. */
  const tickMm = $derived(Math.floor(butt.reach / 100) * 100);
  const groups = $derived(butt.groups.filter((group) => group !== null));
  const both = $derived(groups.length === 2 ? groups : null);

  const said = $derived.by(() => {
    const [fletched, bare] = butt.groups;
    if (fletched && bare) {
      const right = bare.right - fletched.right;
      const up = bare.up - fletched.up;
      return `Bare ${way(right, 'right', 'left')}, ${way(up, 'high', 'low')}`;
    }
    if (!groups.length) return 'Tap where each arrow struck.';
    return fletched
      ? 'Fletched only: it shows your spread.'
      : 'Bare only: put fletched ones beside.';
  });
  const spread = $derived.by(() => {
    const shown = groups.filter((group) => group.count > 1);
    return shown
      .map((group) => `${group.bare ? 'bare' : 'fletched'} within ${figure(mm(2 * group.spread))}`)
      .join('; ');
  });

  function way(off: number, more: string, less: string): string {
    if (Math.abs(off) < 5) return more === 'high' ? 'level' : 'in line';
    return `${figure(mm(Math.abs(off)))} ${off > 0 ? more : less}`;
  }
  function at(event: PointerEvent) {
    const { x: px, y: py } = placeOn(svg!, event);
    return { right: (px - SIZE / 2) / scale, up: (SIZE / 2 - py) / scale, px, py };
  }
  function press(event: PointerEvent) {
    if (event.button > 0 || !svg) return;
    const place = at(event);
    if (place.py > SIZE) return;
    const off = butt.hits.map((hit) =>
      Math.hypot(x(hit.right_mm) - place.px, y(hit.up_mm) - place.py),
    );
    const nearest = off.indexOf(Math.min(...off));
    const near = nearest >= 0 && (off[nearest] ?? SIZE) < R + 8 ? nearest : -1;
    pressed = { ...place, near };
    if (event.pointerType !== 'touch' || near >= 0) svg.setPointerCapture(event.pointerId);
  }
  /** A drag moves the hit it began on; from elsewhere it puts one on and takes it along. */
  function drag(event: PointerEvent) {
    if (!pressed) return;
    const place = at(event);
    if (dragging === null) {
      if (Math.hypot(place.px - pressed.px, place.py - pressed.py) < MOVED) return;
      if (pressed.near < 0) {
        if (event.pointerType === 'touch') return;
        butt.add(pressed.right, pressed.up);
      }
      dragging = pressed.near < 0 ? butt.hits.length - 1 : pressed.near;
    }
    butt.move(dragging, place.right, place.up);
  }
  /** A tap adds, however near it is to another: arrows strike side by side. */
  function drop(event: PointerEvent) {
    if (pressed && dragging === null) {
      const place = at(event);
      if (Math.hypot(place.px - pressed.px, place.py - pressed.py) < MOVED)
        butt.add(pressed.right, pressed.up);
    }
    lost();
  }
  function lost() {
    pressed = null;
    dragging = null;
  }
  function key(event: KeyboardEvent) {
    const held = butt.held === null ? null : butt.hits[butt.held];
    const step = event.shiftKey ? 50 : 10;
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step],
    };
    const move = by[event.key];
    if (event.key === 'Enter' || event.key === ' ') butt.add(0, 0);
    else if (event.key === 'Backspace' || event.key === 'Delete') butt.remove();
    else if (event.key === 'b') butt.bare = !butt.bare;
    else if (event.key === '+') butt.look(1);
    else if (event.key === '-') butt.look(-1);
    else if (move && held && butt.held !== null)
      butt.move(butt.held, held.right_mm + move[0], held.up_mm + move[1]);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<figure>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <svg
    bind:this={svg}
    viewBox="0 0 {SIZE} {SIZE + FOOT}"
    class="w-full"
    role="application"
    tabindex="0"
    aria-label="Butt face, {butt.hits
      .length} hits. {said}. Enter adds a hit at the aim, arrow keys move it, b turns to bare, plus looks closer, Backspace removes it."
    onpointerdown={press}
    onpointermove={drag}
    onpointerup={drop}
    onpointercancel={lost}
    onkeydown={key}
    style:touch-action="pan-y"
  >
    <rect x="0.5" y="0.5" width={SIZE - 1} height={SIZE - 1} class="butt" />
    <path d="M{SIZE / 2} 0V{SIZE}M0 {SIZE / 2}H{SIZE}" class="aim" />
    {#each [-1, -0.5, 0.5, 1].map((share) => share * tickMm) as tick (tick)}
      <line x1={x(tick)} x2={x(tick)} y1={SIZE} y2={SIZE - 5} stroke="var(--soft)" />
    {/each}
    {#each [-tickMm / 2, 0, tickMm / 2] as tick (tick)}
      <text x={x(tick)} y={SIZE + 15} text-anchor="middle" class="soft">
        {Math.abs(tick) / 10}{tick === 0 ? ' cm' : ''}
      </text>
    {/each}
    {#each groups as group (group.bare)}
      {#if group.count > 1}
        <circle
          cx={x(group.right)}
          cy={y(group.up)}
          r={Math.max(group.spread * scale, 3)}
          class="spread"
          class:bare={group.bare}
        />
      {/if}
    {/each}
    {#if both}
      {@const [from, to] = both}
      <line
        x1={x(from!.right)}
        y1={y(from!.up)}
        x2={x(to!.right)}
        y2={y(to!.up)}
        stroke="var(--ink)"
        stroke-width="2"
      />
      <circle cx={x(to!.right)} cy={y(to!.up)} r="3" fill="var(--ink)" />
    {/if}
    {#each butt.hits as hit, i (i)}
      <g transform="translate({x(hit.right_mm)} {y(hit.up_mm)})" style:touch-action="none">
        <circle r={R + 8} fill="transparent" />
        <circle r={R} class="hit" class:bare={hit.bare} class:held={butt.held === i} />
        <text y="4.5" text-anchor="middle" class="number" class:on={!hit.bare}
          >{hit.arrow_number ?? i + 1}</text
        >
      </g>
    {/each}
  </svg>
  <figcaption>
    <span class="font-semibold">{said}</span>
    {#if spread}<span class="block text-sm text-soft">{spread}</span>{/if}
  </figcaption>
</figure>

<style>
  svg {
    cursor: crosshair;
    user-select: none;
  }
  .butt {
    fill: var(--raised);
    stroke: var(--line);
  }
  .aim {
    stroke: var(--line);
  }
  .soft {
    fill: var(--soft);
    font-size: 12px;
  }
  .hit {
    fill: var(--ink);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .hit.bare {
    fill: var(--raised);
  }
  .hit.held {
    stroke: var(--red);
    stroke-width: 3;
  }
  .number {
    font-size: 11px;
    font-weight: 600;
    pointer-events: none;
  }
  .number.on {
    fill: var(--on-ink);
  }
  .spread {
    fill: none;
    stroke: var(--soft);
  }
  .spread.bare {
    stroke-dasharray: 4 3;
  }
</style>
