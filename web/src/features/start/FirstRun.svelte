<script lang="ts">
  import Plain from '../../components/Plain.svelte';
  import FirstRunForm from './FirstRunForm.svelte';

  document.title = 'New rig · Lyrandis';
</script>

<Plain><FirstRunForm known /></Plain>
