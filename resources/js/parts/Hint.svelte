<script lang="ts">
    import { Tooltip } from 'flowbite-svelte';
    import type { Snippet } from 'svelte';

    /* What a button without words does: shown over it when it is pointed at or has the focus. Stands right behind the button. */
    let { children }: { children: Snippet } = $props();
</script>

<Tooltip type="custom" arrow={false} placement="bottom" class="over">{@render children()}</Tooltip>
