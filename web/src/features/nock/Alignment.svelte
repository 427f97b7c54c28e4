<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import LineDrawing from '../../drawings/nock/LineDrawing.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { gap } from '../../lib/units';
  import { wanted } from '../../lib/wanted';
  import NockHead from './NockHead.svelte';
</script>

<WhenReady key="nock">
  {#snippet children(_, stage, page)}
    {@const line = page.line}
    <NockHead {stage} {page} />
    <LineDrawing {line} />
    <div class="mt-3 grid gap-6 lg:grid-cols-2" {@attach wanted('alignment')} tabindex="-1">
      <section aria-labelledby="in-line">
        <h2 id="in-line">String over both limbs</h2>
        <p class="mt-1 text-soft">
          Bow on its back or held off, sight the string down the middle. Read how far it lies off
          the middle of each limb's root, + to the arrow's side.
        </p>
        <div class="mt-2">
          <ReadingField
            control="limbline"
            label="Off the middle, upper and lower"
            word="limbline"
            example="0.5mm -0.5mm"
            shown={line.upper_mm == null
              ? null
              : `${figure(gap(line.upper_mm))}, ${figure(gap(line.lower_mm ?? 0))}`}
          />
        </div>
      </section>
      <section aria-labelledby="centre">
        <h2 id="centre">Point against the string</h2>
        <p class="mt-1 text-soft">
          Arrow on the string, sighted from behind with the string through both limbs' middles. With
          a plunger the point stands 0 to {figure(gap(line.most_out_mm))}
          {line.outward_is_left ? 'left' : 'right'} of the string.
        </p>
        <div class="mt-2">
          <ReadingField
            control="centreshot"
            label="Point outside the string's line"
            word="centreshot"
            example="1mm out"
            shown={line.out_mm == null ? null : figure(gap(line.out_mm))}
          />
          <div class="mt-3">
            <ReadingField
              control="side-plate"
              label="What the arrow leans on"
              word="window"
              example="plunger"
              shown={page.side.plunger ? 'plunger' : 'plate or shelf'}
              hint="Type plunger or plate."
            />
          </div>
        </div>
      </section>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
