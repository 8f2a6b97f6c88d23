<script lang="ts">
    /* How far work is, as a share of one. */
    let { share, label, class: looks = 'mt-2' }: { share: number; label: string; class?: string } = $props();
    const percent = $derived(Math.round(100 * Math.min(1, share)));
</script>

<div
    class="h-1.5 overflow-hidden rounded bg-ruled {looks}"
    role="progressbar"
    aria-label={label}
    aria-valuemin="0"
    aria-valuemax="100"
    aria-valuenow={percent}
>
    <div class="h-full bg-iris transition-[width]" style:width="{percent}%"></div>
</div>
