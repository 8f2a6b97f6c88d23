<script lang="ts">
    import type { Shapes } from '../../../api/client';
    import type { Document } from '../../../state/document.svelte';
    import type { Rehearsal } from './rehearsal.svelte';

    let { onclose }: { rule: Shapes['RuleShape']; page: Document; rehearsal: Rehearsal; onclose: () => void } = $props();
</script>

<button type="button" onclick={onclose}>close</button>
