<script lang="ts">
    /* The line above the tasks of one group: what they have in common, and how many they are. */
    let { label, tone, count }: { label: string; tone: string; count: number } = $props();
</script>

<div class="line min-h-0! bg-lit">
    <div class="m h"></div>
    <div class="b py-1.5! text-[12px]! font-semibold tone-{tone}">
        {label} <span class="figures text-ink-3">{count}</span>
    </div>
</div>
