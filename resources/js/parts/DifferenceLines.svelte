<script lang="ts">
    /* What stayed, what is gone and what is new, line by line; the sign says it as well as the colour. */
    let { lines, label }: { lines: { text: string; mark: string }[]; label: string } = $props();
    const MARKS: Record<string, { sign: string; tone: string }> = {
        gone: { sign: '−', tone: 'text-madder line-through decoration-1' },
        new: { sign: '+', tone: 'text-fern' },
        same: { sign: '', tone: 'text-ink-2' },
    };
</script>

<ol class="mt-1.5 border-l-2 border-ruled pl-3 text-[12.5px] leading-relaxed" aria-label={label}>
    {#each lines as line, index (index)}
        <li class="grid grid-cols-[14px_1fr] {MARKS[line.mark]?.tone}" data-mark={line.mark}>
            <span class="figures">{MARKS[line.mark]?.sign}</span><span class="whitespace-pre-wrap">{line.text}</span>
        </li>
    {/each}
</ol>
