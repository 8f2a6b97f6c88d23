<script lang="ts">
    let { tone, children }: { tone: string; children: import('svelte').Snippet } = $props();
</script>

<span class="stamp tone-{tone}">{@render children()}</span>
