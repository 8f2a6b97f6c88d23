<script lang="ts">
    /* A small chart of counts, today last. */
    let { values, label }: { values: number[]; label: string } = $props();
    const most = $derived(Math.max(1, ...values));
</script>

<svg
    viewBox="0 0 {values.length * 8} 24"
    class="h-6 w-full"
    role="img"
    aria-label="{label}: {values.join(', ')}"
    preserveAspectRatio="none"
>
    {#each values as value, index (index)}
        {@const height = value === 0 ? 1 : 3 + (value / most) * 20}
        <rect x={index * 8} y={24 - height} width="6" {height} rx="1" fill={index === values.length - 1 ? 'var(--iris)' : 'var(--dots)'} />
    {/each}
</svg>
